/** First pages come before first papers: who opens the board just after a start does not share a core with this. */
const AFTER_MS = 15_000;

/** Runs once when the server starts: the papers' thread is warm before the first report is asked for. */
export function register(): void {
  if (process.env['NEXT_RUNTIME'] !== 'nodejs') return;
  setTimeout(() => {
    import('./server/pdf/client')
      .then(({ onPaper }) => onPaper((paper) => paper.warm()))
      .catch((e: unknown) => console.error('The PDF library could not be read beforehand:', e));
  }, AFTER_MS).unref();
}
