/**
 * The half of `./surrik bench` that a person waits for: the job page in Chromium against the built server on
 * loopback. Called by the surrik command with the test cluster up and the application built.
 */
import { gzipSync } from 'node:zlib';
import { quantile, withSignedInPage } from './signedInPage';

const LOADS = 9;
const KEEPS = 12;

await withSignedInPage(async (page, url) => {
  // As text: a function would carry the transpiler's helpers, which the page does not have.
  await page.addInitScript({
    content: `
      window.surrikBench = { marks: {}, events: [], long: [] };
      for (const [name, selector] of [['ready', '.stripbox svg'], ['next', '.btn.next:not([aria-disabled])']]) {
        const timer = setInterval(() => {
          if (!document.querySelector(selector)) return;
          window.surrikBench.marks[name] = performance.now();
          clearInterval(timer);
        }, 4);
      }
      const watch = (type, into, more) =>
        new PerformanceObserver((l) => l.getEntries().forEach((e) => into.push(e.duration))).observe({ type, buffered: true, ...more });
      watch('event', window.surrikBench.events, { durationThreshold: 16 });
      watch('longtask', window.surrikBench.long);`,
  });
  type Seen = { marks: Record<string, number>; events: number[]; long: number[] };
  const seen = () => page.evaluate(() => (window as unknown as { surrikBench: Seen }).surrikBench);

  let bytes = 0;
  let inWorkers = 0;
  const bodies: Promise<void>[] = [];
  page.on('response', (r) => {
    if (/\.js(\?|$)/.test(r.url()))
      bodies.push(
        r.body().then(
          (b) =>
            void (r.request().resourceType() === 'script'
              ? (bytes += gzipSync(b).length)
              : (inWorkers += gzipSync(b).length)),
          () => undefined,
        ),
      );
  });
  const ready: number[] = [];
  const next: number[] = [];
  let script = 0;
  let inWorker = 0;
  const again: number[] = [];
  for (let k = 0; k < 2 * LOADS; k++) {
    // Every second time what the device remembers is taken away first: then all is worked out anew.
    const anew = k % 2 === 0;
    if (anew && k > 0) {
      await page.evaluate(() => indexedDB.deleteDatabase('surrik-answers'));
      await page.goto('about:blank');
    }
    await page.goto(`${url}/jobs/1042/readings`);
    await page.locator('.btn.next:not([aria-disabled])').first().waitFor();
    await page.waitForTimeout(50);
    const { marks } = await seen();
    ready.push(marks['ready']!);
    (anew ? next : again).push(marks['next']!);
    if (k === 0) {
      await page.waitForTimeout(1000);
      await Promise.all(bodies);
      script = bytes;
      inWorker = inWorkers;
    }
  }
  console.log(
    `job page on loopback, strip drawn and keypad there: p50 ${quantile(ready, 0.5).toFixed(0)} ` +
      `ms, worst ${Math.max(...ready).toFixed(0)} ms of ${2 * LOADS} (reach 1000)`,
  );
  console.log(
    `  with bands and the next best test: worked out anew p50 ${quantile(next, 0.5).toFixed(0)} ms, opened again ` +
      `p50 ${quantile(again, 0.5).toFixed(0)} ms (reach 1000)`,
  );
  console.log(
    `script on the job page: ${(script / 1000).toFixed(0)} kB gzipped, and ${(inWorker / 1000).toFixed(0)} kB in its worker (reach 250)`,
  );

  await page.waitForTimeout(1500);
  const before = (await seen()).long.length;
  const flags = await page.locator('.stripbox [role="button"], .stripbox button.flag').count();
  for (let k = 0; k < KEEPS; k++) {
    await page.locator('.sheet .pn').nth(k).click();
    await page.keyboard.type('12.41');
    await page.keyboard.press('Enter');
    await page.waitForTimeout(700);
  }
  const { events, long } = await seen();
  const tasks = long.slice(before);
  console.log(
    `clicks and keys while ${KEEPS} readings are kept, ${flags} flags drawn: slowest ` +
      `to the next frame ${Math.max(0, ...events).toFixed(0)} ms, p95 of those over ` +
      `16 ms ${events.length ? quantile(events, 0.95).toFixed(0) : 0} ms (reach 100)`,
  );
  console.log(
    `main thread meanwhile: ${tasks.length} tasks over 50 ms, longest ${Math.max(0, ...tasks).toFixed(0)} ms (reach none over 50)`,
  );
});
