'use client';
/** Where what holds every page fails: the same words, on a page that stands by itself. */
import PageFailed from './error';
import './globals.css';

export default function ProgramFailed(failure: Parameters<typeof PageFailed>[0]) {
  return (
    <html lang="en" data-theme="ticket">
      <body>
        <PageFailed {...failure} />
      </body>
    </html>
  );
}
