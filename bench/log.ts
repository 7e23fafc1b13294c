/**
 * A recorder's log of a million rows in Chromium: read, first drawn, panned and zoomed. Called by the surrik
 * command with the test cluster up and the application built.
 */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seededRng } from '../src/core/units/rng';
import { quantile, withSignedInPage } from './signedInPage';

const ROWS = 1_000_000;

const folder = mkdtempSync(join(tmpdir(), 'surrik-bench-log-'));
const file = join(folder, 'million.csv');
const rng = seededRng(3);
const lines = ['time,Start battery (V),Coach battery (V),Isolator current (A)'];
for (let i = 0; i < ROWS; i++) {
  const hour = (i % 86_400) / 3600;
  const on = hour > 8 && hour < 11;
  const linked = on && hour > 8.01;
  const start = (on ? 14 : 12.7) + 0.01 * rng.normal();
  const coach = (linked ? 13.6 : 12.4) + 0.01 * rng.normal();
  const amps = (linked ? 40 - (hour - 8) * 5 : 0) + 0.2 * rng.normal();
  lines.push(`${1_760_000_000 + i},${start.toFixed(2)},${coach.toFixed(2)},${amps.toFixed(1)}`);
}
writeFileSync(file, `${lines.join('\n')}\n`);

await withSignedInPage(async (page, url) => {
  await page.goto(`${url}/jobs/1042/logbook`);
  await page.getByText('Read a log', { exact: true }).click();
  await page.getByLabel('Log file').setInputFiles(file);
  const read = page.getByRole('button', { name: 'Read it' });
  await read.waitFor();
  // As text: a function would carry the transpiler's helpers, which the page does not have.
  await page.evaluate(`(() => {
    window.at = {};
    const timer = setInterval(() => {
      if (!window.at.read && document.querySelector('.logsays')) window.at.read = performance.now();
      if (document.querySelector('.logchart figcaption [aria-live]')?.textContent) {
        window.at.drawn = performance.now();
        clearInterval(timer);
      }
    }, 2);
    document.addEventListener('click', () => (window.at.click ??= performance.now()), { once: true, capture: true });
  })()`);
  await read.click();
  await page.locator('.logchart figcaption').filter({ hasText: 'From' }).waitFor({ timeout: 120_000 });
  const at = (await page.evaluate('window.at')) as { click: number; read: number; drawn: number };
  console.log(
    `log of ${ROWS} rows: read and understood in ${((at.read - at.click) / 1000).toFixed(1)} ` +
      `s (reach 20), first drawn ${(at.drawn - at.read).toFixed(0)} ms later (reach 500)`,
  );
  const canvas = page.locator('.logcanvas');
  await canvas.scrollIntoViewIfNeeded();
  const box = (await canvas.boundingBox())!;
  await page.evaluate(
    `(() => { window.frames2 = []; let last = performance.now(); const f = () => { const n = performance.now(); ` +
      `window.frames2.push(n - last); last = n; window.raf = requestAnimationFrame(f); }; f(); })()`,
  );
  await page.mouse.move(box.x + 420, box.y + 150);
  for (let i = 0; i < 30; i++) {
    await page.mouse.wheel(0, -100);
    await page.waitForTimeout(16);
  }
  await page.mouse.down();
  for (let i = 0; i < 80; i++) {
    await page.mouse.move(box.x + 420 - i * 4, box.y + 150);
    await page.waitForTimeout(12);
  }
  await page.mouse.up();
  const frames =
    ((await page.evaluate('(cancelAnimationFrame(window.raf), window.frames2.slice(2))')) as number[]) ?? [];
  const total = frames.reduce((a, b) => a + b, 0);
  console.log(
    `zoomed and panned: ${((1000 * frames.length) / total).toFixed(0)} frames a second (reach 30), a ` +
      `frame p50 ${quantile(frames, 0.5).toFixed(0)} ms, p95 ${quantile(frames, 0.95).toFixed(0)} ms`,
  );
}).finally(() => rmSync(folder, { recursive: true, force: true }));
