/**
 * Pages outside a job: every rig one can have drawn up has its form, every calculator its answer with units, the board
 * its tickets in their columns.
 */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { ReactElement, ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it, vi } from 'vitest';
import { readable } from '../../tests/jobPage';
import { VARIETY, motorhomeInWords } from '../../tests/motorhomes';
import { USUAL_BENCH } from '../core/rig/archetypes/bench';
import { BENCH_UNITS } from '../core/rig/archetypes/benchChoices';
import type { MotorhomeChoices } from '../core/rig/archetypes/choicesSchema';
import { USUAL_COUPLED } from '../core/rig/archetypes/coupled';
import { COUPLED_FAMILIES, linksFor } from '../core/rig/archetypes/coupledChoices';
import { LINK_CHOICES } from '../core/rig/archetypes/choices';
import { USUAL_MOTORHOME } from '../core/rig/archetypes/motorhome';
import { CALCULATORS } from '../core/size/calculators';
import { inWords } from '../core/units/vocabulary';
import type { BoardPage, BoardTicket } from '../server/job/board';
import { Board } from './Board';
import { Calculators } from './calculators/Calculators';
import { BenchForm } from './jobs/new/BenchForm';
import { CoupledForm } from './jobs/new/CoupledForm';
import { MotorhomeForm } from './jobs/new/MotorhomeForm';
import { Spoken } from './jobs/new/rigFields';

const search = vi.hoisted(() => ({ now: new URLSearchParams() }));
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push: () => undefined, refresh: () => undefined }),
  useSearchParams: () => search.now,
}));
vi.mock('./sign-in/actions', () => ({ signOutAction: () => undefined }));

const html = (piece: ReactNode) =>
  renderToStaticMarkup(<QueryClientProvider client={new QueryClient()}>{piece}</QueryClientProvider>);
const SLIPS = /undefined|NaN|\[object|Infinity|null\b/;
const nothing = () => undefined;
/** Every field has words that say what it is. */
function unnamed(drawn: string): string[] {
  const labelled = drawn.replaceAll(/<label[\s\S]*?<\/label>/g, '');
  return [...labelled.matchAll(/<(?:input|select)([^>]*)>/g)]
    .map(([whole]) => whole)
    .filter((x) => !/aria-label(ledby)?="[^"]+"|type="hidden"/.test(x));
}

describe('the form of a motorhome', () => {
  it.each(VARIETY.map((c) => [motorhomeInWords(c), c] as const))('%s', (_, choices) => {
    const drawn = html(<MotorhomeForm tapped c={choices} set={nothing} />);
    const text = readable(drawn);
    expect(text).not.toMatch(SLIPS);
    expect(unnamed(drawn)).toEqual([]);
    for (const { label } of LINK_CHOICES) expect(text).toContain(label);
    expect(text).toContain(LINK_CHOICES.find((l) => l.id === choices.link)!.says);
    expect(drawn).toContain(`value="${choices.coach.capacity}"`);
  });
});

describe('the form of two coupled vehicles', () => {
  it.each(COUPLED_FAMILIES.flatMap(({ id }) => linksFor(id).map((l) => [id, l.id, l] as const)))(
    '%s, %s',
    (family, link, row) => {
      const drawn = html(<CoupledForm tapped c={{ ...USUAL_COUPLED[family], link }} usualFridge={290} set={nothing} />);
      const text = readable(drawn);
      expect(text).not.toMatch(SLIPS);
      expect(unnamed(drawn)).toEqual([]);
      // Only links this family can have are offered, and the chosen one says what it is.
      for (const other of linksFor(family)) expect(text).toContain(other.label);
      expect(text).toContain(row.says);
    },
  );
});

describe('what a form asks only where it can be', () => {
  const text = (form: ReactElement) => readable(html(form));
  const car = USUAL_COUPLED['towed-car'];

  it('a towed car: which battery the line is fed from, and of the house bank what it is', () => {
    expect(text(<CoupledForm tapped c={car} usualFridge={290} set={nothing} />)).toContain('Line fed from');
    // Its own button names the house bank once; where the line is fed from it, it is a bank of its own.
    const named = (c: typeof car) =>
      text(<CoupledForm tapped c={c} usualFridge={290} set={nothing} />).split('House bank').length - 1;
    expect(named({ ...car, source: 'house' })).toBeGreaterThan(named(car));
    expect(text(<CoupledForm tapped c={USUAL_COUPLED.trailer} usualFridge={290} set={nothing} />)).not.toContain(
      'Line fed',
    );
  });

  it('a fridge: how it goes to 12 V, where there is one', () => {
    const camper = (fridge: boolean) =>
      text(<CoupledForm tapped c={{ ...USUAL_COUPLED.camper, fridge }} usualFridge={290} set={nothing} />);
    expect(camper(true)).toContain('By itself, by a trigger');
    expect(camper(false)).not.toContain('By itself, by a trigger');
  });

  it('a motorhome: the way round a charger only where the charger stands alone', () => {
    const form = (link: MotorhomeChoices['link']) =>
      text(<MotorhomeForm tapped c={{ ...USUAL_MOTORHOME, link }} set={nothing} />);
    expect(form('dcdc')).toContain('Keyed connectors');
    expect(form('dcdc-dual')).toContain('Keyed connectors');
    expect(form('dcdc-boost')).not.toContain('Keyed connectors');
  });

  it('when its ignition wire is live, where there is one', () => {
    const asks = (tapped: boolean) => [
      text(<MotorhomeForm tapped={tapped} c={USUAL_MOTORHOME} set={nothing} />),
      text(<CoupledForm tapped={tapped} c={USUAL_COUPLED.trailer} usualFridge={290} set={nothing} />),
    ];
    for (const form of asks(true)) expect(form).toContain('Only while the engine runs');
    for (const form of asks(false)) expect(form).not.toContain('Only while the engine runs');
  });

  it.each(BENCH_UNITS)('a bench with $label says what it does', ({ id, says }) => {
    const drawn = html(<BenchForm c={{ ...USUAL_BENCH, unit: id }} set={nothing} />);
    expect(readable(drawn)).toContain(says);
    expect(readable(drawn)).not.toMatch(SLIPS);
    expect(unnamed(drawn)).toEqual([]);
  });
});

describe('the forms of a new job in a British shop', () => {
  const spoken = { words: (text: string) => inWords('europe', text), length: 'm' as const };
  const told = (form: ReactElement) => html(<Spoken.Provider value={spoken}>{form}</Spoken.Provider>);

  it('speak its words and measure in meters', () => {
    const drawn = told(<MotorhomeForm tapped c={USUAL_MOTORHOME} set={nothing} />);
    expect(readable(drawn)).toContain('Leisure battery');
    expect(readable(drawn)).not.toMatch(/Coach bank|Chassis bank|[Ss]hore/);
    expect(readable(drawn)).not.toMatch(/\bft\b/);
    // 36 ft of coach.
    expect(drawn).toContain('value="11"');
  });

  it('ask for the fridge’s element with what is usual there, until its label is read', () => {
    const camper = USUAL_COUPLED.camper;
    const form = (fridgeWatts?: number) =>
      told(
        <CoupledForm
          tapped
          c={{ ...camper, ...(fridgeWatts ? { fridgeWatts } : {}) }}
          usualFridge={135}
          set={nothing}
        />,
      );
    expect(form()).toContain('value="135"');
    expect(form(170)).toContain('value="170"');
  });
});

describe('a calculator', () => {
  it.each(CALCULATORS.map((c) => [c.id, c] as const))('%s shows its inputs, its answer and its formula', (id, c) => {
    search.now = new URLSearchParams({ c: id });
    const drawn = html(<Calculators />);
    const text = readable(drawn);
    expect(text).not.toMatch(SLIPS);
    expect(text).toContain(c.title);
    expect(text).toContain(c.asks);
    for (const input of c.inputs) expect(text).toContain(input.label);
    const value = (i: string) => c.inputs.find((x) => x.id === i)!.value;
    const answer = c.answer({ number: (i) => Number(value(i)), choice: (i) => String(value(i)) });
    expect(text).toContain(answer.says);
    for (const figure of answer.figures) expect(text).toContain(figure.label);
    expect(unnamed(drawn)).toEqual([]);
  });

  it('lists all the others to go to', () => {
    search.now = new URLSearchParams();
    const drawn = html(<Calculators />);
    for (const c of CALCULATORS) expect(drawn).toContain(`href="?c=${c.id}"`);
  });

  it('takes what its address says, and its usual value where that is nonsense', () => {
    const [c] = CALCULATORS;
    const number = c!.inputs.find((i) => i.kind === 'number')!;
    search.now = new URLSearchParams({ c: c!.id, [number.id]: 'a lot' });
    expect(readable(html(<Calculators />))).not.toMatch(SLIPS);
  });
});

describe('the board', () => {
  const ticket = (number: number, status: BoardTicket['status'], more: Partial<BoardTicket> = {}): BoardTicket => ({
    number,
    status,
    rig: `Rig ${number}`,
    kind: '36-ft coach',
    complaint: 'Coach bank not charging',
    changedAt: '2026-11-24T10:00:00Z',
    by: 'Bay 2 technician',
    next: { station: 'Readings', words: 'Measure P12' },
    ...more,
  });
  const page = (tickets: BoardTicket[]): BoardPage => ({
    stamp: '1',
    shop: 'Shop',
    actor: 'Bay 2 technician',
    tickets,
    counts: { waiting: 1, 'in-the-bay': 2, 'waiting-approval': 0, 'waiting-parts': 1, done: 40 } as never,
  });

  it('has every ticket once, under its column, with what is next and the way there', () => {
    const drawn = html(
      <Board
        initial={page([
          ticket(1, 'waiting'),
          ticket(2, 'in-the-bay'),
          ticket(3, 'waiting-parts', { next: { station: 'Build', words: 'Order a lug' } }),
          ticket(4, 'done'),
        ])}
      />,
    );
    const text = readable(drawn);
    for (const n of [1, 2, 3, 4]) expect((drawn.match(new RegExp(`>${n}</a>`, 'g')) ?? []).length, `${n}`).toBe(1);
    expect(drawn).toContain('href="/jobs/2/readings"');
    expect(drawn).toContain('href="/jobs/3/build"');
    expect(drawn).toContain('href="/jobs/4/report"');
    const at = (words: string) => text.indexOf(words);
    expect(at('Waiting')).toBeLessThan(at('Rig 1'));
    expect(at('Rig 1')).toBeLessThan(at('Rig 2'));
    expect(at('Rig 2')).toBeLessThan(at('Rig 3'));
    expect(at('Rig 3')).toBeLessThan(at('Rig 4'));
    expect(text).toContain('Build: Order a lug');
    expect(text).not.toMatch(SLIPS);
  });

  it('says of an empty shop what each column will hold', () => {
    const text = readable(html(<Board initial={page([])} />));
    for (const words of ['No rig in a bay.', 'Nothing held up.', 'Nothing finished yet.'])
      expect(text).toContain(words);
  });
});
