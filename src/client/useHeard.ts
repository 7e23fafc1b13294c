'use client';
/** Since when the server has been silent about something this device shows a copy of. */
import { useSyncExternalStore } from 'react';
import { heard, onHeard } from './deviceCopy';

/** When what is shown was said, in ms, while the server does not answer; undefined while it does. */
export function useSilentSince(key: string): number | undefined {
  return useSyncExternalStore(
    onHeard,
    () => {
      const last = heard(key);
      return last && !last.live ? last.at : undefined;
    },
    () => undefined,
  );
}
