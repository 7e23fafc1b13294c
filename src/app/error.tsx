'use client';
/** Where a page itself fails: what happened, that nothing entered is lost, and the way back to work. */
import { useEffect } from 'react';

export default function PageFailed({ error, reset }: { error: Error & { digest?: string }; reset(): void }) {
  useEffect(() => {
    document.title = 'This page failed · Surrik';
  }, []);
  return (
    <main className="plain" role="alert">
      <h1>This page failed</h1>
      <p>
        What you kept is on this device or with the job. Open the page again; if it fails once more, tell whoever looks
        after Surrik in your shop what it says here.
      </p>
      <pre className="max-w-full overflow-x-auto text-note whitespace-pre-wrap">{error.digest ?? error.message}</pre>
      <p className="flex gap-3">
        <button type="button" className="btn btn-accent" onClick={reset}>
          Open it again
        </button>
        {/* eslint-disable-next-line @next/next/no-html-link-for-pages -- a page that failed is left behind whole */}
        <a className="btn" href="/">
          All jobs
        </a>
      </p>
    </main>
  );
}
