// @vitest-environment jsdom
/** What an owner agreed to, as it is being written down: it outlives whatever takes the form off the screen meanwhile. */
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { beforeAll, expect, it, vi } from 'vitest';
import { NOTHING_WRONG } from '../../core/diagnose/catalogue/nothingWrong';
import { declared } from '../../../tests/afternoon';
import { inADocument, show } from '../../../tests/dom';
import { changed, jobPageOf } from '../../../tests/jobPage';
import type { JobPage } from '../shell/jobPage';
import { AfterVerdict } from './AfterVerdict';

inADocument();
let page: JobPage;
beforeAll(async () => {
  page = await jobPageOf(declared, 'fault');
});
const field = (name: string | RegExp) => screen.getByLabelText<HTMLInputElement>(name);

it('an approval half written is there again, and is gone once it was recorded', () => {
  const send = vi.fn();
  const here = changed(page, { send });
  const verdict = declared.verdicts.at(-1)!;
  show(here, <AfterVerdict verdict={verdict} />);
  const suggested = field(/^Up to/).value;
  fireEvent.change(field(/^Up to/), { target: { value: '250' } });
  fireEvent.change(field('Who agreed'), { target: { value: 'the driver' } });
  fireEvent.change(field('How'), { target: { value: 'in-person' } });
  cleanup();

  show(here, <AfterVerdict verdict={verdict} />);
  expect([field(/^Up to/).value, field('Who agreed').value]).toEqual(['250', 'the driver']);
  fireEvent.click(screen.getByRole('button', { name: 'Approved' }));
  expect(send).toHaveBeenCalledWith(
    'approval.record',
    expect.objectContaining({ verdict: verdict.id, upTo: 250, who: 'the driver' }),
  );
  cleanup();

  show(here, <AfterVerdict verdict={verdict} />);
  expect([field(/^Up to/).value, field('Who agreed').value]).toEqual([suggested, '']);
});

it('where nothing is wrong asks for what the owner was told, and speaks of no repair and no parts', () => {
  const send = vi.fn();
  const sound = {
    ...declared.verdicts.at(-1)!,
    fault: NOTHING_WRONG.id,
    name: NOTHING_WRONG.name,
    repair: NOTHING_WRONG.repair,
  };
  const doc = { ...declared, verdicts: [...declared.verdicts.slice(0, -1), sound] };
  show(changed(page, { send, job: doc }), <AfterVerdict verdict={sound} />);
  expect(screen.queryByText(/repair done|repaired rig|wait for parts|part fitted/i)).toBeNull();
  expect(screen.queryByRole('button', { name: 'Approved' })).toBeNull();
  expect(field(/^What the owner was told/).value).toBe('No repair: explain how it works.');
  fireEvent.click(screen.getByRole('button', { name: 'Explained: prove that it works' }));
  expect(send).toHaveBeenCalledWith('repair.record', expect.objectContaining({ verdict: sound.id }));
});
