// @vitest-environment jsdom
/** Questions asked backwards: a link after the other, answers as they come, and a stop that keeps those that are there. */
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeAll, describe, expect, it } from 'vitest';
import { exampleJob } from '../../../tests/answers';
import { inADocument, show } from '../../../tests/dom';
import { jobPageOf } from '../../../tests/jobPage';
import type { Compared } from '../../core/plan/compare';
import type { HoursAnswer } from '../../core/plan/questions';
import type { JobPage } from '../shell/jobPage';
import { AskPanel } from './AskPanel';
import type { Asked, OptionsSource } from './source';

inADocument();
let page: JobPage;
beforeAll(async () => {
  page = await jobPageOf(exampleJob('heron'), 'options');
});
const rows = ['one', 'two', 'three'].map((id) => ({ candidate: { id, name: `Link ${id}` } })) as Compared[];

function panel() {
  const waiting: { asked: Asked; answer(a: HoursAnswer): void; fail(e: Error): void; signal: AbortSignal }[] = [];
  const source = {
    ask: (asked: Asked, signal: AbortSignal) =>
      new Promise<HoursAnswer>((answer, fail) => {
        signal.addEventListener('abort', () => fail(new DOMException('stopped', 'AbortError')));
        waiting.push({ asked, answer, fail, signal });
      }),
  } as unknown as OptionsSource;
  show(page, <AskPanel rows={rows} source={source} picked="one" house="Coach bank" />);
  return waiting;
}
const says = (text: string) => ({ says: text }) as HoursAnswer;
const press = (name: string) => userEvent.click(screen.getByRole('button', { name }));

describe('a question to every link', () => {
  it('is answered one after the other, each answer there at once', async () => {
    const waiting = panel();
    await press('Work it out');
    for (const [k, row] of rows.entries()) {
      await waitFor(() => expect(waiting).toHaveLength(k + 1));
      expect(waiting[k]!.asked).toMatchObject({
        candidate: row.candidate.id,
        question: { ask: 'how-long', from: 0.4, to: 0.8 },
      });
      waiting[k]!.answer(says(`answer ${k}`));
      await screen.findByText(`answer ${k}`);
    }
    await screen.findByRole('button', { name: 'Work it out' });
    expect(screen.getAllByRole('listitem')).toHaveLength(3);
  });

  it('stops at once where it is stopped, says nothing of an error, and keeps what was answered', async () => {
    const waiting = panel();
    await press('Work it out');
    await waitFor(() => expect(waiting).toHaveLength(1));
    waiting[0]!.answer(says('five hours'));
    await waitFor(() => expect(waiting).toHaveLength(2));
    await press('Stop');
    expect(waiting[1]!.signal.aborted).toBe(true);
    await screen.findByRole('button', { name: 'Work it out' });
    expect(screen.getByText('five hours')).toBeTruthy();
    expect(screen.queryByRole('alert')).toBeNull();
    expect(waiting).toHaveLength(2);
  });

  it('that cannot be answered says why', async () => {
    const waiting = panel();
    await press('Work it out');
    await waitFor(() => expect(waiting).toHaveLength(1));
    waiting[0]!.fail(new Error('no operating point'));
    expect((await screen.findByRole('alert')).textContent).toContain('no operating point');
  });
});
