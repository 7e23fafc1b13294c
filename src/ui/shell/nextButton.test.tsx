// @vitest-environment jsdom
/** The button of the next action, and the bar to declare, while the last reading is still being taken in. */
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeAll, expect, it } from 'vitest';
import { exampleJob } from '../../../tests/answers';
import { inADocument, show } from '../../../tests/dom';
import { changed, jobPageOf } from '../../../tests/jobPage';
import { NextTestBox } from '../fault/NextTestBox';
import type { JobPage } from './jobPage';
import { whileThinking } from './nextAction';
import { NextButton } from './NextSlip';
import { PhoneReadings } from './Phone';

inADocument();
let page: JobPage;
beforeAll(async () => {
  const job = exampleJob('heron');
  page = await jobPageOf({ ...job, verdicts: [], status: 'in-the-bay' } as typeof job, 'fault');
});

it('the next action keeps its place and its focus, and says that it is being worked out', () => {
  show(changed(page, { next: whileThinking(page.place.next) }), <NextButton />);
  const button = screen.getByRole('button', { name: 'Working out what is next …' });
  expect(button.getAttribute('aria-disabled')).toBe('true');
  button.focus();
  expect(document.activeElement).toBe(button);
  expect(button.className).not.toContain('btn-accent');
});

it('what is found can be pressed', async () => {
  let acted = 0;
  show(changed(page, { act: () => acted++ }), <NextButton />);
  const button = screen.getByRole('button', { name: new RegExp(`^${page.place.next.words.slice(0, 12)}`) });
  expect(button.getAttribute('aria-disabled')).toBeNull();
  await userEvent.click(button);
  expect(acted).toBe(1);
});

it('a fault is declared with the figure of all its readings, never of the ones before the last', async () => {
  const declared: number[] = [];
  const suspect = page.answers.diagnosis!.suspects[0]!;
  const parts = { declare: () => declared.push(1) };
  const name = /^Declare: /;
  const box = <NextTestBox declare={suspect} settled={false} />;
  const { again } = show(changed(page, { ...parts, diagnosing: true }), box);
  await userEvent.click(screen.getByRole('button', { name }));
  expect(screen.queryByText('Taking in the last reading …')).not.toBeNull();
  expect(declared).toEqual([]);
  again(changed(page, parts));
  await userEvent.click(screen.getByRole('button', { name }));
  expect(declared).toEqual([1]);
});

it('on a phone what is being worked out stands where Keep is, until something is typed', () => {
  const { next } = page.place;
  const at = (now: JobPage['place']['next']) => changed(page, { next: now, station: 'readings' });
  const { again } = show(at(whileThinking(next)), <PhoneReadings />);
  expect(screen.queryByRole('button', { name: 'Working out what is next …' })).not.toBeNull();
  expect(screen.queryByRole('button', { name: /^Keep/ })).toBeNull();
  const measurement = page.measuring.selected!;
  again(at({ kind: 'measure', measurement, words: 'Measure', minutes: 1, retake: false }));
  expect(screen.queryByRole('button', { name: /^Keep/ })).not.toBeNull();
});
