/** Runs once when the server starts: the PDF library and its fonts are read before the first report is asked for. */
export function register(): void {
  if (process.env['NEXT_RUNTIME'] !== 'nodejs') return;
  setTimeout(() => {
    import('./server/papers').then(({ onPaper }) => onPaper((paper) => paper.warm())).catch((e: unknown) => console.error('The PDF library could not be read beforehand:', e));
  }, 1500).unref();
}
