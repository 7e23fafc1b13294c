'use client';
/** Light ("ticket") and dark ("carbon"); remembered in a cookie, so that the server paints it right. */
import { useCallback, useSyncExternalStore } from 'react';

export type Theme = 'ticket' | 'carbon';

const listeners = new Set<() => void>();
const read = (): Theme => (document.documentElement.dataset['theme'] === 'carbon' ? 'carbon' : 'ticket');

export function useTheme(): [Theme, () => void] {
  const theme = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    read,
    (): Theme => 'ticket',
  );
  const toggle = useCallback(() => {
    const next: Theme = read() === 'carbon' ? 'ticket' : 'carbon';
    document.documentElement.dataset['theme'] = next;
    document.cookie = `surrik-theme=${next}; path=/; max-age=31536000; samesite=lax`;
    for (const listener of listeners) listener();
  }, []);
  return [theme, toggle];
}
