/** How far a long trial is, on the error stream, so that its figures stay clean. */

/** Items between two lines. */
const EVERY = 250;

/** @param from performance.now() at the start. */
export function progress(what: string, done: number, of: number, from: number): void {
  if (done === 0 || done % EVERY !== 0) return;
  const minutes = (performance.now() - from) / 60_000;
  process.stderr.write(
    `${what}: ${done} of ${of}, ${minutes.toFixed(1)} min, about ${((minutes * (of - done)) / done).toFixed(0)} min to go\n`,
  );
}
