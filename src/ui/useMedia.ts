'use client';
import { useSyncExternalStore } from 'react';

/** A hand's width, or a screen magnified until little stands on it at once: one thing at a time. */
export const PHONE = '(max-width: 480px), (max-width: 800px) and (max-height: 500px)';

/** Whether a media query holds; false while the server renders. */
export function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (listener) => {
      const media = window.matchMedia(query);
      media.addEventListener('change', listener);
      return () => media.removeEventListener('change', listener);
    },
    () => window.matchMedia(query).matches,
    () => false,
  );
}

/** A tablet's width: what stands beside the work on a desk lies under it. */
export const NARROW = '(max-width: 1100px)';

/** How a page moves something into sight: at once for who wants less motion. */
export const scrolling = (): ScrollBehavior =>
  window.matchMedia('(prefers-reduced-motion: reduce)').matches ? 'auto' : 'smooth';
