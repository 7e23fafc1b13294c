// @vitest-environment jsdom
/** Where nothing is to be proved yet, the station shows what will be: of this very rig, in the shop's words. */
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { repaired } from '../../../tests/afternoon';
import { exampleJob } from '../../../tests/answers';
import { inADocument, show } from '../../../tests/dom';
import { changed, jobPageOf } from '../../../tests/jobPage';
import { workerApi } from '../../../tests/workerApi';
import { NOTHING_WRONG } from '../../core/diagnose/catalogue/nothingWrong';
import type { Proof } from '../../core/prove/proofs';
import { DEFAULT_SETTINGS } from '../../core/shop/shop';
import { ProveStation } from './ProveStation';

inADocument();

describe('Prove before a repair', () => {
  it.each(['heron', 'pika', 'osprey'] as const)('%s: lists what will be read, state by state', async (name) => {
    const core = await workerApi('core');
    const settings = { ...DEFAULT_SETTINGS, vocabulary: 'europe' as const };
    const page = await jobPageOf(exampleJob(name), 'prove', { settings });
    const asked = vi.fn((doc: typeof page.file.described) =>
      Promise.resolve(core.proving({ key: name, doc }, { made: 'build' }, [], []).readings),
    );
    const go = vi.fn();
    show(changed(page, { expect: asked, go }), <ProveStation />);
    const list = await screen.findByRole('region', { name: 'What will be measured' });
    const proofs = (await asked.mock.results[0]!.value) as readonly Proof[];
    expect(proofs.length).toBeGreaterThan(2);
    expect(asked).toHaveBeenCalledWith(page.file.described);
    expect(within(list).getAllByRole('listitem')).toHaveLength(proofs.length);
    for (const p of proofs) expect(list.textContent).toContain(p.label);
    for (const state of new Set(proofs.map((p) => p.state)))
      expect(list.textContent).toContain(page.file.stateOf(state).label);
    expect(list.textContent).not.toMatch(/shore|undefined|NaN/i);
    await userEvent.click(screen.getByRole('button', { name: 'To the fault' }));
    expect(go).toHaveBeenCalledWith('fault');
  });
});

describe('Prove after a verdict', () => {
  it.each([
    ['a repair', repaired, 'Proof after the repair'],
    [
      'an explanation, where nothing is wrong',
      { ...repaired, verdicts: repaired.verdicts.map((v) => ({ ...v, fault: NOTHING_WRONG.id })) },
      'Proof that it works',
    ],
  ])('is headed by what it is the proof of: %s', async (_, job, heading) => {
    show(await jobPageOf(job, 'prove'), <ProveStation />);
    expect(screen.getByText(heading)).toBeTruthy();
  });
});
