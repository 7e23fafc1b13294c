/** Pieces of a page in a document of jsdom, pressed and typed in as a person would. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, beforeEach, vi } from 'vitest';
import { JobPageProvider, type JobPage } from '../src/ui/shell/jobPage';
import { TypedProvider } from '../src/ui/typed';

/** Call once in a test file: a screen of a workbench's width, and nothing left of one test in the next. */
export function inADocument(): void {
  beforeEach(() => {
    // jsdom lays nothing out: no query about the screen matches.
    vi.stubGlobal('matchMedia', (media: string) => ({
      media,
      matches: false,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    }));
    Element.prototype.scrollIntoView = () => undefined;
    HTMLDialogElement.prototype.showModal ??= function (this: HTMLDialogElement) {
      this.open = true;
    };
    HTMLDialogElement.prototype.close ??= function (this: HTMLDialogElement) {
      this.open = false;
    };
  });
  afterEach(() => {
    cleanup();
    vi.unstubAllGlobals();
  });
}

const around = (page: JobPage, piece: ReactNode) => (
  <QueryClientProvider client={new QueryClient()}>
    <TypedProvider>
      <JobPageProvider value={page}>{piece}</JobPageProvider>
    </TypedProvider>
  </QueryClientProvider>
);

/** Shows a piece of a job's page; what it gives back shows it again as another page would. */
export function show(page: JobPage, piece: ReactNode): { again(next: JobPage): void } {
  const { rerender } = render(around(page, piece));
  return { again: (next) => rerender(around(next, piece)) };
}
