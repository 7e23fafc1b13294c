/** A stream of a shop's changes to one page: server-sent events, a beat now and then, an end where its person is out. */
import type { Change } from './changes';

/** ms between two beats, by which a page knows that it is still told. */
export const BEAT_MS = 5000;
/** Beats after which it is asked again whether the person may still look. */
const ASK_EVERY = 6;

// A process that stops ends its streams: else it would wait for pages that never go.
const shared = globalThis as { surrikStreams?: Set<() => void>; surrikStopping?: boolean };
function open(): Set<() => void> {
  if (!shared.surrikStreams) {
    const streams = (shared.surrikStreams = new Set<() => void>());
    process.once('SIGTERM', () => {
      shared.surrikStopping = true;
      for (const end of streams) end();
    });
  }
  return shared.surrikStreams;
}

/**
 * @param hear begins to hear, gives back what ends it
 * @param mayLook whether the person may still look
 */
export function liveStream(
  hear: (tell: (change: Change) => void) => () => void,
  mayLook: () => Promise<boolean>,
  gone: AbortSignal,
): ReadableStream<Uint8Array> {
  const text = new TextEncoder();
  let end = () => undefined as void;
  return new ReadableStream({
    start(controller) {
      let over = false;
      let beats = 0;
      const say = (line: string) => {
        if (!over) controller.enqueue(text.encode(line));
      };
      const deaf = hear((change) => say(`data: ${JSON.stringify(change)}\n\n`));
      const beat = setInterval(() => {
        say('event: beat\ndata: 1\n\n');
        if (++beats % ASK_EVERY === 0)
          mayLook().then(
            (may) => may || end(),
            // The database is away: nothing is told meanwhile, and it is asked again.
            () => undefined,
          );
      }, BEAT_MS);
      end = () => {
        if (over) return;
        over = true;
        clearInterval(beat);
        deaf();
        open().delete(end);
        controller.close();
      };
      open().add(end);
      gone.addEventListener('abort', end, { once: true });
      say('event: beat\ndata: 1\n\n');
      if (shared.surrikStopping || gone.aborted) end();
    },
    cancel: () => end(),
  });
}
