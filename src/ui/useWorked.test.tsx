// @vitest-environment jsdom
/** What the core is asked for: once for the same, anew for another, and what came before stands meanwhile. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, render } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { inADocument } from '../../tests/dom';
import { useWorked } from './useWorked';

inADocument();

const turn = (ms = 20) => act(() => new Promise((r) => setTimeout(r, ms)));

function asks({ rests = 0, keep = true } = {}) {
  const answers: ((said: string) => void)[] = [];
  const refuse: ((e: Error) => void)[] = [];
  const work = vi.fn(
    () =>
      new Promise<string>((done, no) => {
        answers.push(done);
        refuse.push(no);
      }),
  );
  const seen: { data: string | undefined; failed: string | undefined; fetching: boolean }[] = [];
  const client = new QueryClient();
  function Piece({ of }: { of: readonly unknown[] }) {
    const { data, error, isFetching } = useWorked('piece', of, work, { rests, keep });
    seen.push({ data, failed: error?.message, fetching: isFetching });
    return null;
  }
  const tree = (of: readonly unknown[]) => (
    <QueryClientProvider client={client}>
      <Piece of={of} />
    </QueryClientProvider>
  );
  const first = {};
  const { rerender } = render(tree([first, 1]));
  return { answers, refuse, work, now: () => seen.at(-1)!, ask: (of: readonly unknown[]) => rerender(tree(of)), first };
}

it('is asked once for the same values, and again when one is another', async () => {
  const { answers, work, now, ask, first } = asks();
  await turn();
  act(() => answers[0]!('one'));
  await turn();
  expect(now()).toEqual({ data: 'one', failed: undefined, fetching: false });
  ask([first, 1]);
  await turn();
  expect(work).toHaveBeenCalledTimes(1);
  // An object like it is not it.
  ask([{}, 1]);
  await turn();
  expect(work).toHaveBeenCalledTimes(2);
  expect(now()).toEqual({ data: 'one', failed: undefined, fetching: true });
  act(() => answers[1]!('two'));
  await turn();
  expect(now().data).toBe('two');
});

it('shows nothing of another’s answer where it must not stand', async () => {
  const { answers, now, ask } = asks({ keep: false });
  await turn();
  act(() => answers[0]!('one'));
  await turn();
  ask([{}, 2]);
  await turn();
  expect(now().data).toBeUndefined();
});

it('asks only for what rests, and never for what was gone by then', async () => {
  const { work, ask } = asks({ rests: 60 });
  for (let k = 0; k < 5; k++) {
    await turn(10);
    ask([k]);
  }
  await turn(120);
  expect(work).toHaveBeenCalledTimes(1);
});

it('says what went wrong, once', async () => {
  const { refuse, work, now } = asks();
  await turn();
  act(() => refuse[0]!(new Error('no circuit')));
  await turn();
  expect(now().failed).toBe('no circuit');
  expect(work).toHaveBeenCalledTimes(1);
});
