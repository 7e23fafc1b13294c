'use client';
/** What the core is asked for while a piece is shown. */
import { keepPreviousData, useQuery, type UseQueryResult } from '@tanstack/react-query';

/** A number of its own for every object: what a question depends on makes a short key. */
const numbers = new WeakMap<object, number>();
let last = 0;
function keyOf(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value;
  let number = numbers.get(value);
  if (number === undefined) numbers.set(value, (number = ++last));
  return `#${number}`;
}

const rest = (ms: number, signal: AbortSignal): Promise<void> =>
  new Promise((done, stop) => {
    const timer = setTimeout(done, ms);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      stop(new DOMException('asked for something else meanwhile', 'AbortError'));
    });
  });

/**
 * What is worked out from these values: asked again when one of them is another, the answer before standing meanwhile.
 * @param from what it depends on; objects count by identity
 * @param rests ms a change rests before it is asked for, where one types or drags
 * @param work `null` for what there is no answer to
 */
export function useWorked<T>(
  name: string,
  from: readonly unknown[],
  work: () => Promise<T>,
  { rests = 0, keep = true }: { rests?: number; keep?: boolean } = {},
): UseQueryResult<T> {
  return useQuery<T>({
    queryKey: [name, ...from.map(keyOf)],
    queryFn: async ({ signal }) => {
      if (rests > 0) await rest(rests, signal);
      return work();
    },
    ...(keep ? { placeholderData: keepPreviousData } : {}),
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
}
