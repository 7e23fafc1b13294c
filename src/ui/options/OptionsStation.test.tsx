// @vitest-environment jsdom
/** What the Options station does by itself: it runs a comparison when what is asked rests, stops it, and runs it anew. */
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { exampleJob } from '../../../tests/answers';
import { inADocument, show } from '../../../tests/dom';
import { changed, jobPageOf } from '../../../tests/jobPage';
import { jobCandidates, jobScenarios } from '../../core/jobAnswers/options';
import { compare, type Comparison } from '../../core/plan/compare';
import type { JobPage } from '../shell/jobPage';
import { OptionsStation } from './OptionsStation';
import type { OptionList, OptionsSource } from './source';

// Nothing is drawn on a canvas here.
vi.mock('../charts/useLineChart', () => ({
  useLineChart: () => ({ canvas: { current: null }, chart: { current: undefined } }),
  showStretch: () => undefined,
}));
vi.mock('chartjs-plugin-zoom', () => ({ default: { id: 'zoom' } }));

const job = exampleJob('heron');
const scenarios = jobScenarios(job);
const candidates = jobCandidates(job).slice(0, 3);
let page: JobPage;
let comparison: Comparison;
beforeAll(async () => {
  page = await jobPageOf(job, 'options');
  comparison = compare(candidates, scenarios, { labourPerHour: 130, partsTimes: 1.3 });
});
inADocument();

const list: OptionList = {
  candidates: candidates.map(({ id, name, says, school }) => ({ id, name, says, school })),
  usual: candidates.map((c) => c.id),
  scenarios: [...scenarios],
  troubles: [],
  house: { id: 'coach-bank', name: 'Coach bank' },
} as never;

/** A source whose comparisons the test answers, in the order they were asked. */
function source(over: Partial<OptionsSource> = {}) {
  const asked: { signal: AbortSignal; answer(c: Comparison): void; told(share: number): void }[] = [];
  const never = () => new Promise<never>(() => undefined);
  const options = {
    list: async () => list,
    compare: (_: unknown, __: unknown, told: (share: number) => void, signal?: AbortSignal) =>
      new Promise<Comparison>((answer, fail) => {
        signal!.addEventListener('abort', () => fail(new DOMException('stopped', 'AbortError')));
        asked.push({ signal: signal!, answer, told });
      }),
    spread: never,
    ask: never,
    size: never,
    build: never,
    tow: never,
    ...over,
  } as OptionsSource;
  return { options, asked };
}

const station = <OptionsStation />;

describe('the Options station', () => {
  it('shows what is under way, and when it is stopped by hand says so and compares again when asked', async () => {
    const { options, asked } = source();
    show(changed(page, { options }), station);
    await screen.findByText(/comparing 3 links/);
    expect(asked).toHaveLength(1);
    await userEvent.click(screen.getByRole('button', { name: 'Stop' }));
    expect(asked[0]!.signal.aborted).toBe(true);
    await screen.findByRole('heading', { name: 'Stopped' });
    expect(screen.queryByText(/comparing/)).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Compare' }));
    await waitFor(() => expect(asked).toHaveLength(2));
    asked[1]!.answer(comparison);
    const rows = await screen.findAllByRole('row');
    // Each candidate, and the head; the charts' own tables are beside them.
    for (const c of candidates)
      expect(
        rows.some((r) => r.textContent!.includes(c.name)),
        c.name,
      ).toBe(true);
  });

  it('keeps what stands where a newer run is stopped, and offers to run it', async () => {
    const { options, asked } = source();
    const { again } = show(changed(page, { options }), station);
    await waitFor(() => expect(asked).toHaveLength(1));
    asked[0]!.answer(comparison);
    await screen.findByRole('button', { name: /^A/ });
    // Somebody sets another use: it runs anew.
    const used = { ...job, usage: { scenarios: [{ ...scenarios[0]!, startHour: 3 }] } };
    again(changed(page, { job: used, options }));
    await waitFor(() => expect(asked).toHaveLength(2));
    await userEvent.click(await screen.findByRole('button', { name: 'Stop' }));
    await screen.findByRole('button', { name: /compare again/ });
    expect(screen.getByRole('button', { name: /^A/ })).toBeTruthy();
  });

  it('says why nothing could be simulated, and leads to the rig', async () => {
    const go = vi.fn();
    const { options } = source({ list: () => Promise.reject(new Error('The rig has no battery.')) });
    show(changed(page, { options, go }), station);
    await screen.findByText('The rig has no battery.');
    await userEvent.click(screen.getByRole('button', { name: 'To the rig' }));
    expect(go).toHaveBeenCalledWith('rig');
  });

  it('picks the recommended link until another row is pressed', async () => {
    const { options, asked } = source();
    show(changed(page, { options }), station);
    await waitFor(() => expect(asked).toHaveLength(1));
    asked[0]!.answer(comparison);
    const pressed = async () =>
      (await screen.findAllByRole('button', { pressed: true }))
        .map((b) => b.textContent)
        .filter((t) => /^[A-C]/.test(t!));
    await screen.findByRole('button', { name: /^A/ });
    const best = comparison.recommendation?.pick ?? candidates[0]!.id;
    const at = candidates.findIndex((c) => c.id === best);
    expect((await pressed())[0]).toMatch(new RegExp(`^${'ABC'[at]!}`));
    const other = at === 0 ? 'B' : 'A';
    await userEvent.click(screen.getByRole('button', { name: new RegExp(`^${other}`) }));
    await waitFor(async () => expect((await pressed())[0]).toMatch(new RegExp(`^${other}`)));
  });
});
