'use client';
/** The bench calculators: one at a time, its inputs kept in the address, its working below the answer. */
import { clsx } from 'clsx';
import { useQuery } from '@tanstack/react-query';
import { CircleCheck, Link2, RotateCcw, Send, TriangleAlert } from 'lucide-react';
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { fetchBoard, fetchShop, sendNote } from '@/client/api';
import { CALCULATORS } from '@/core/size/calculators';
import {
  valuesOf,
  type CalculatorAnswer,
  type Calculator,
  type Figure,
  type Input,
} from '@/core/size/calculators/calculator';
import { DEFAULT_SETTINGS } from '@/core/shop/shop';
import { inWordsQuantity, QUANTITIES, shownIn, storedFrom, unitOf, type Units } from '@/core/units/quantity';
import { inWords } from '@/core/units/vocabulary';
import { Choose, NumberField } from '@/ui/fields';
import { Sheet } from '@/ui/Dialog';
import { PageTop } from '@/ui/PageTop';

/** More choices than this are a list, not a row of buttons. */
const MOST_BUTTONS = 4;
const MARKS = { good: CircleCheck, watch: TriangleAlert, bad: TriangleAlert } as const;

export function Calculators() {
  const search = useSearchParams();
  const shop = useQuery({ queryKey: ['shop'], queryFn: fetchShop, staleTime: 60_000 });
  const settings = shop.data?.shop.settings ?? DEFAULT_SETTINGS;
  const units: Units = { length: settings.length, temperature: settings.temperature, gauge: settings.gauge };
  const words = (text: string) => inWords(settings.vocabulary, text);
  const calculator = CALCULATORS.find((c) => c.id === search.get('c')) ?? CALCULATORS[0]!;
  const given = Object.fromEntries(calculator.inputs.map((i) => [i.id, search.get(i.id) ?? undefined]));
  const values = valuesOf(calculator, given);
  const answer = calculator.answer(values);
  const [sending, setSending] = useState(false);
  const [copied, setCopied] = useState(false);
  // The address is the only place the inputs live: it can be kept, sent, and gone back to.
  const put = (next: Record<string, string | undefined>) => {
    const params = new URLSearchParams(
      Object.entries({ c: calculator.id, ...next }).flatMap(([k, v]) => (v === undefined ? [] : [[k, v]])),
    );
    window.history.replaceState(null, '', `?${params}`);
  };
  const set = (id: string, value: string) => put({ ...given, [id]: value });

  return (
    <div
      className={clsx(
        'calcs',
        'grid',
        'h-dvh',
        'max-small:flex max-small:flex-col max-small:h-auto max-small:min-h-dvh print:block print:h-auto',
      )}
    >
      <PageTop title="Calculators" name="Bench arithmetic" sub="no job needed" />
      <nav
        className={clsx(
          'calclist',
          'grid content-start',
          'overflow-y-auto border-r-2 border-ink bg-card',
          'max-lg:flex max-lg:col-span-full max-lg:overflow-x-auto max-lg:border-r-0 max-lg:border-b-2 max-lg:border-ink',
          'max-small:sticky max-small:top-0 max-small:z-2 print:grid-cols-slip',
        )}
        aria-label="Calculators"
      >
        {CALCULATORS.map((c) => (
          <a
            key={c.id}
            href={`?c=${c.id}`}
            aria-current={c.id === calculator.id ? 'page' : undefined}
            className={clsx('is-on:bg-ink', c.id === calculator.id ? 'on' : '')}
            ref={(el) => {
              if (el && c.id === calculator.id) el.scrollIntoView({ block: 'nearest', inline: 'center' });
            }}
            onClick={(e) => {
              e.preventDefault();
              window.history.pushState(null, '', `?c=${c.id}`);
            }}
          >
            {words(c.title)}
          </a>
        ))}
      </nav>
      <main
        className={clsx(
          'calcform',
          'grid content-start gap-3',
          'px-4 py-3.5 overflow-y-auto border-r-2 border-ink',
          'max-small:order-2 max-small:grid-cols-1 max-small:min-w-0 max-small:px-3',
          'max-small:pt-0.5 max-small:pb-4 max-small:overflow-visible max-small:border-r-0',
        )}
        aria-label={words(calculator.title)}
      >
        <h1 className="font-cond font-bold text-title leading-close">{words(calculator.asks)}</h1>
        {calculator.inputs.map((input) => (
          <Field
            key={`${calculator.id}.${input.id}.${units.length}${units.temperature}`}
            input={input}
            value={input.kind === 'number' ? values.number(input.id) : values.choice(input.id)}
            units={units}
            words={words}
            set={(v) => set(input.id, v)}
          />
        ))}
        <button type="button" className="btn" onClick={() => put({})}>
          <RotateCcw size={18} aria-hidden="true" />
          Usual figures again
        </button>
      </main>
      <section
        className="calcanswer grid content-start gap-3 px-4 py-3.5 overflow-y-auto max-small:contents"
        aria-label="Answer"
        aria-live="polite"
      >
        <Plate answer={answer} units={units} words={words} />
        {calculator.caution && (
          <p className="calccaution flex gap-2 px-2.5 py-1.5 border-l-4 border-warn bg-warn-tint text-note leading-tight">
            <TriangleAlert size={19} aria-hidden="true" />
            {words(calculator.caution)}
          </p>
        )}
        <div className="flex flex-wrap gap-2 print:grid-cols-slip">
          <button type="button" className="btn btn-neutral" onClick={() => setSending(true)}>
            <Send size={18} aria-hidden="true" />
            Send to a job
          </button>
          <button
            type="button"
            className="btn"
            onClick={() => {
              void navigator.clipboard?.writeText(window.location.href).then(() => setCopied(true));
            }}
          >
            <Link2 size={18} aria-hidden="true" />
            {copied ? 'Copied' : 'Copy the address'}
          </button>
        </div>
        <details open>
          <summary className="flex items-center min-h-11 border-t-2 border-ink font-cond font-bold text-head cursor-pointer">
            Working
          </summary>
          <p className="calcformula pt-0.5 pb-2 font-semibold text-large leading-tight">{calculator.formula}</p>
          <table className="w-full mb-2 text-note">
            <tbody>
              {answer.working.map((f, i) => (
                <tr key={`${f.label}${i}`}>
                  <th className="py-1 border-b-1 border-rule-2 font-medium text-left" scope="row">
                    {words(f.label)}
                  </th>
                  <td className="py-1 border-b-1 border-rule-2 font-cond font-semibold text-right text-large whitespace-nowrap">
                    {inWordsQuantity(f.quantity, f.value, units)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="quiet">{words(calculator.source)}</p>
        </details>
        <p className="quiet">Local codes, the vehicle maker’s guide and licensed practice come first.</p>
      </section>
      {sending && <SendSheet text={asNote(calculator, given, answer, units)} onClose={() => setSending(false)} />}
    </div>
  );
}

function Field({
  input,
  value,
  units,
  words,
  set,
}: {
  input: Input;
  value: string | number;
  units: Units;
  words(t: string): string;
  set(value: string): void;
}) {
  if (input.kind === 'number') {
    const { quantity } = input;
    const bound = (x: number) => Number(shownIn(quantity, x, units).toPrecision(4));
    return (
      <NumberField
        label={words(input.label)}
        unit={unitOf(quantity, units)}
        value={shownIn(quantity, value as number, units)}
        min={bound(input.min)}
        max={bound(input.max)}
        onChange={(x) => set(String(Number(storedFrom(quantity, x, units).toPrecision(9))))}
      />
    );
  }
  if (input.choices.length <= MOST_BUTTONS)
    return (
      <Choose
        label={words(input.label)}
        choices={input.choices.map((c) => ({ ...c, label: words(c.label) }))}
        value={value as string}
        onChange={set}
      />
    );
  return (
    <label className="numfield pick grid items-center gap-x-2.5 gap-y-1">
      <span className="first:m-0 first:p-0 first:font-semibold first:text-note">{words(input.label)}</span>
      <select
        className="select w-full h-11.5 min-w-0 pl-2.5 border border-ink bg-card font-cond font-semibold text-large"
        value={value as string}
        onChange={(e) => set(e.target.value)}
      >
        {input.choices.map((c) => (
          <option key={c.id} value={c.id}>
            {c.label}
          </option>
        ))}
      </select>
    </label>
  );
}

function Plate({ answer, units, words }: { answer: CalculatorAnswer; units: Units; words(t: string): string }) {
  const [main, ...rest] = answer.figures as [Figure, ...Figure[]];
  const Mark = answer.mark ? MARKS[answer.mark] : undefined;
  const { digits } = QUANTITIES[main.quantity];
  const shown = inWordsQuantity(main.quantity, main.value, units).split(' ');
  return (
    <div
      className={clsx(
        'plate',
        'grid gap-1.5',
        'min-w-0 px-4 pt-3 pb-3.5 rounded bg-ink',
        'text-paper wrap-anywhere',
        'max-small:sticky max-small:top-15.5 max-small:z-1 max-small:px-3.5 max-small:pt-2 max-small:pb-2.5',
      )}
    >
      <span className="lab font-cond font-semibold text-inherit text-large">{words(main.label)}</span>
      <output className="font-cond font-bold leading-none tabular-nums" data-digits={digits}>
        {shown[0]} <small className="font-semibold text-display">{shown.slice(1).join(' ')}</small>
      </output>
      <p className={answer.mark ?? ''}>
        {Mark && <Mark size={20} aria-hidden="true" />}
        {words(answer.says)}
      </p>
      {rest.length > 0 && (
        <dl className="mt-1">
          {rest.map((f) => (
            <div className="flex justify-between gap-3 py-1.25 text-plain max-small:py-0.75" key={f.label}>
              <dt>{words(f.label)}</dt>
              <dd className="font-cond font-semibold text-large whitespace-nowrap">
                {inWordsQuantity(f.quantity, f.value, units)}
              </dd>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
}

/** What is written down in the job: inputs, answer, and how it came about. */
function asNote(
  c: Calculator,
  given: Record<string, string | undefined>,
  answer: CalculatorAnswer,
  units: Units,
): string {
  const values = valuesOf(c, given);
  const inWords = (i: Input): string =>
    i.kind === 'number'
      ? inWordsQuantity(i.quantity, values.number(i.id), units)
      : i.choices.find((x) => x.id === values.choice(i.id))!.label;
  const inputs = c.inputs.map((i) => `${i.label} ${inWords(i)}`);
  const figures = answer.figures.map((f) => `${f.label} ${inWordsQuantity(f.quantity, f.value, units)}`);
  return `Calculated, ${c.title.toLowerCase()}: ${inputs.join('; ')}. ${figures.join('; ')}. ${answer.says} (${c.formula})`;
}

function SendSheet({ text, onClose }: { text: string; onClose(): void }) {
  const board = useQuery({ queryKey: ['board'], queryFn: () => fetchBoard() });
  const [state, setState] = useState<{ job: number; said?: string; done?: boolean }>();
  const open = board.data?.tickets.filter((t) => t.status !== 'done') ?? [];
  const send = (job: number) => {
    setState({ job });
    sendNote(job, text).then(
      () => setState({ job, done: true }),
      (e: Error) => setState({ job, said: e.message }),
    );
  };
  return (
    <Sheet title="Write it into which job?" onClose={onClose}>
      <p className="text-note leading-tight">{text}</p>
      {state?.said && (
        <p className="alert alert-warning alert-outline" role="alert">
          {state.said}
        </p>
      )}
      {state?.done ? (
        <p role="status" className="text-note leading-tight">
          Written into job {state.job}. <Link href={`/jobs/${state.job}/intake`}>Open it</Link>
        </p>
      ) : (
        <div className="states grid gap-1.75">
          {open.map((t) => (
            <button
              key={t.number}
              type="button"
              className={clsx(
                'flex justify-between items-center gap-2',
                'min-h-13.5 px-3 py-1 border border-ink rounded bg-card',
                'text-left',
              )}
              disabled={state !== undefined && state.said === undefined}
              onClick={() => send(t.number)}
            >
              <span>
                <b className="block font-cond text-head leading-close">
                  {t.number} {t.rig}
                </b>
                <span className="text-note leading-close">{t.complaint}</span>
              </span>
            </button>
          ))}
          {board.data && open.length === 0 && <p>No job is open.</p>}
          {board.error && <p role="alert">{board.error.message}</p>}
        </div>
      )}
    </Sheet>
  );
}
