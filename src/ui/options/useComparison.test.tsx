// @vitest-environment jsdom
/** A comparison that is under way is said so, and one that is done is not. */
import { act } from '@testing-library/react';
import { expect, it } from 'vitest';
import { exampleJob } from '../../../tests/answers';
import { inADocument, show } from '../../../tests/dom';
import { changed, jobPageOf } from '../../../tests/jobPage';
import type { OptionsSource } from './source';
import { useComparison } from './useComparison';

inADocument();

it('is done with its answer, though its last word on how far it is comes after it', async () => {
  const page = await jobPageOf(exampleJob('heron'), 'options');
  let told: (share: number) => void = () => undefined;
  let done: (answer: never) => void = () => undefined;
  const options = {
    list: () =>
      Promise.resolve({ usual: ['leave'], candidates: [{ id: 'leave' }], troubles: [], scenarios: [{ id: 'trip' }] }),
    compare: (_: unknown, __: unknown, tell: typeof told) =>
      new Promise((resolve) => {
        told = tell;
        done = resolve as typeof done;
      }),
  } as unknown as OptionsSource;
  let seen: ReturnType<typeof useComparison> | undefined;
  const Piece = () => {
    seen = useComparison();
    return null;
  };
  show(changed(page, { options }), <Piece />);
  // The list comes, then a change rests before it is run.
  for (let k = 0; k < 2; k++) await act(() => new Promise((r) => setTimeout(r, 400)));
  act(() => told(0.5));
  expect(seen!.progress).toBe(0.5);
  await act(async () => done({ rows: [] } as never));
  expect(seen!.progress).toBeUndefined();
  // By a port of its own, behind the answer.
  act(() => told(1));
  expect(seen!.progress).toBeUndefined();
  expect(seen!.comparison).toEqual({ rows: [] });
});
