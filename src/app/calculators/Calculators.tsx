'use client';
/** The bench calculators: one at a time, its inputs kept in the address, its working below the answer. */
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
    <div className="calcs">
      <PageTop title="Calculators" name="Bench arithmetic" sub="no job needed" />
      <nav className="calclist" aria-label="Calculators">
        {CALCULATORS.map((c) => (
          <a
            key={c.id}
            href={`?c=${c.id}`}
            aria-current={c.id === calculator.id ? 'page' : undefined}
            className={c.id === calculator.id ? 'on' : ''}
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
      <main className="calcform" aria-label={words(calculator.title)}>
        <h1>{words(calculator.asks)}</h1>
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
        <button type="button" className="bx" onClick={() => put({})}>
          <RotateCcw size={18} aria-hidden="true" />
          Usual figures again
        </button>
      </main>
      <section className="calcanswer" aria-label="Answer" aria-live="polite">
        <Plate answer={answer} units={units} words={words} />
        {calculator.caution && (
          <p className="calccaution">
            <TriangleAlert size={19} aria-hidden="true" />
            {words(calculator.caution)}
          </p>
        )}
        <div className="calcdo">
          <button type="button" className="bx ink" onClick={() => setSending(true)}>
            <Send size={18} aria-hidden="true" />
            Send to a job
          </button>
          <button
            type="button"
            className="bx"
            onClick={() => {
              void navigator.clipboard?.writeText(window.location.href).then(() => setCopied(true));
            }}
          >
            <Link2 size={18} aria-hidden="true" />
            {copied ? 'Copied' : 'Copy the address'}
          </button>
        </div>
        <details open>
          <summary>Working</summary>
          <p className="calcformula">{calculator.formula}</p>
          <table>
            <tbody>
              {answer.working.map((f, i) => (
                <tr key={`${f.label}${i}`}>
                  <th scope="row">{words(f.label)}</th>
                  <td>{inWordsQuantity(f.quantity, f.value, units)}</td>
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
    <label className="numfield pick">
      <span>{words(input.label)}</span>
      <select className="select" value={value as string} onChange={(e) => set(e.target.value)}>
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
    <div className="plate">
      <span className="lab">{words(main.label)}</span>
      <output data-digits={digits}>
        {shown[0]} <small>{shown.slice(1).join(' ')}</small>
      </output>
      <p className={answer.mark ?? ''}>
        {Mark && <Mark size={20} aria-hidden="true" />}
        {words(answer.says)}
      </p>
      {rest.length > 0 && (
        <dl>
          {rest.map((f) => (
            <div key={f.label}>
              <dt>{words(f.label)}</dt>
              <dd>{inWordsQuantity(f.quantity, f.value, units)}</dd>
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
      <p className="lead-in">{text}</p>
      {state?.said && (
        <p className="alert alert-warning alert-outline" role="alert">
          {state.said}
        </p>
      )}
      {state?.done ? (
        <p role="status" className="lead-in">
          Written into job {state.job}. <Link href={`/jobs/${state.job}/intake`}>Open it</Link>
        </p>
      ) : (
        <div className="states">
          {open.map((t) => (
            <button
              key={t.number}
              type="button"
              className="strow"
              disabled={state !== undefined && state.said === undefined}
              onClick={() => send(t.number)}
            >
              <span>
                <b>
                  {t.number} {t.rig}
                </b>
                <span>{t.complaint}</span>
              </span>
            </button>
          ))}
          {board.data && open.length === 0 && <p className="quiet">No job is open.</p>}
          {board.error && <p role="alert">{board.error.message}</p>}
        </div>
      )}
    </Sheet>
  );
}
