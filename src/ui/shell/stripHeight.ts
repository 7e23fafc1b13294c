'use client';
/** How tall the strip stands over a station: as the station opens it, or as somebody last wanted it there. */
import { useCallback, useSyncExternalStore } from 'react';
import type { StripHeight } from './stationRegistry';
import type { Station } from './stations';

const listeners = new Set<() => void>();
const keyOf = (station: Station) => `surrik-strip-${station}`;

/** What was wanted there; undefined where nobody said, or nothing can be kept. */
function wanted(station: Station): StripHeight | undefined {
  try {
    const kept = localStorage.getItem(keyOf(station));
    return kept === 'full' || kept === 'slim' ? kept : undefined;
  } catch {
    return undefined;
  }
}

export function useStripHeight(station: Station, usual: StripHeight): [StripHeight, () => void] {
  const height = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => wanted(station) ?? usual,
    () => usual,
  );
  const toggle = useCallback(() => {
    try {
      localStorage.setItem(keyOf(station), (wanted(station) ?? usual) === 'full' ? 'slim' : 'full');
    } catch {
      return;
    }
    for (const listener of listeners) listener();
  }, [station, usual]);
  return [height, toggle];
}
