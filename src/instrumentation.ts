/** First pages come before first papers: who opens the board just after a start does not share a core with this. */
const AFTER_MS = 15_000;

/** Runs once when the server starts: the papers' thread is warm before the first report is asked for. */
export function register(): void {
  if (process.env['NEXT_RUNTIME'] !== 'nodejs') return;
  setTimeout(() => {
    Promise.all([import('./server/pdf/client'), import('./server/log')])
      .then(([{ onPaper }, { log }]) =>
        onPaper('', (paper) => paper.warm()).catch((err: unknown) =>
          log.warn({ err }, 'the PDF library could not be read beforehand'),
        ),
      )
      .catch(() => undefined);
  }, AFTER_MS).unref();
}
