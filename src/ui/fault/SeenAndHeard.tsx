'use client';
/**
 * What one sees, hears, feels and tries: each question with its answers, each answer evidence like a reading.
 * Figures are graded by a rule that is shown. The newest answer stands; pressing it again takes it back.
 */
import { clsx } from 'clsx';
import { TriangleAlert } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { grade } from '../../core/diagnose/observations/grades';
import type { Field, ObservationKind } from '../../core/diagnose/observations/observationKind';
import { celsiusStored, type TemperatureUnit } from '../../core/units/preferences';
import { useMeasuring, useAnswers, useJobFile, useEntries } from '../shell/jobPage';
import { Sheet } from '../Dialog';
import { readFigure } from '../../core/units/typedFigure';

const GROUPS: readonly { id: ObservationKind['group']; title: string }[] = [
  { id: 'look', title: 'Look' },
  { id: 'listen', title: 'Listen' },
  { id: 'feel', title: 'Feel and temperature' },
  { id: 'try', title: 'Try: ohms, lamp, swap, load' },
];

const UNIT_WORDS: Readonly<Record<string, string>> = { ohm: 'Ω' };
const shownUnit = (field: Field, temperature: TemperatureUnit) =>
  field.unit === '°C' && temperature === 'F' ? '°F' : (UNIT_WORDS[field.unit] ?? field.unit);

export function SeenAndHeard({ question, onClose }: { question?: string | undefined; onClose(): void }) {
  const { questions } = useMeasuring();
  const { diagnosis } = useAnswers();
  // What would tell most stands first; the order holds while the sheet is open, whatever is answered.
  const [telling] = useState(diagnosis?.telling ?? {});
  const asked = questions.find((q) => q.id === question);
  const [group, setGroup] = useState<ObservationKind['group']>(asked?.group ?? 'look');
  const list = questions
    .filter((q) => q.group === group && q.id !== asked?.id)
    .sort((a, b) => (telling[b.id] ?? 0) - (telling[a.id] ?? 0));
  return (
    <Sheet title="What do you see, hear and find?" onClose={onClose} wide>
      {asked && (
        <div className="asks first grid gap-1.5 mb-3 px-2.5 py-2 border-2 border-ink rounded">
          <Ask question={asked} focus />
        </div>
      )}
      <div className="flex flex-wrap gap-1.5 mb-2" role="tablist" aria-label="Kind of question">
        {GROUPS.filter((g) => questions.some((q) => q.group === g.id)).map((g) => (
          <button
            key={g.id}
            type="button"
            role="tab"
            aria-selected={g.id === group}
            className={`btn${g.id === group ? ' btn-neutral' : ''}`}
            onClick={() => setGroup(g.id)}
          >
            {g.title}
          </button>
        ))}
      </div>
      <p className="text-note leading-tight">
        Answer what you looked at; leave the rest. What would tell most stands first. Press an answer again to take it
        back.
      </p>
      <div className="asks grid gap-1.5">
        {list.map((q) => (
          <Ask key={q.id} question={q} />
        ))}
      </div>
    </Sheet>
  );
}

function Ask({ question: q, focus = false }: { question: ObservationKind; focus?: boolean }) {
  const { job, epoch, rig, settings, stateOf } = useJobFile();
  const { send } = useEntries();
  const ref = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (focus) ref.current?.querySelector<HTMLElement>('button, input')?.focus();
  }, [focus]);
  const now = job.observations.findLast((o) => !o.retracted && o.epoch === epoch && o.what === q.id);
  const keep = (answer: string, values?: Record<string, number>) => {
    if (now?.answer === answer && !values) send('note.retract', { id: now.id });
    else
      send('observation.keep', {
        id: crypto.randomUUID(),
        what: q.id,
        answer,
        text: q.ask.slice(0, 2000),
        ...(values ? { values } : {}),
      });
  };
  const why = q.grade && now?.values ? grade(q.grade, now.values, rig.vehicles[0]!.nominalVolts).why : undefined;
  return (
    <div
      ref={ref}
      className={clsx(
        'ask',
        'grid items-center grid-cols-end gap-2',
        'pb-1.5 border-b-1 border-rule',
        'max-sm:grid-cols-1 within-first:pb-0 within-first:border-b-0',
      )}
      role="group"
      aria-label={q.ask}
    >
      <span className="what">
        <b className="block font-cond text-large leading-close">{q.ask}</b>
        <span className="block text-note text-ink-2 leading-tight">
          {q.state !== undefined && q.state !== job.rigState.id && (
            <em className="font-semibold text-ink not-italic">{stateOf(q.state).label}. </em>
          )}
          {q.how}
        </span>
        {q.caution && (
          <span className="care block font-semibold text-note text-warn leading-tight">
            <TriangleAlert size={15} aria-hidden="true" /> {q.caution}
          </span>
        )}
        {why && <span className="grade">{why}</span>}
      </span>
      <span className="picks flex flex-wrap justify-end gap-1.5 max-w-105 max-sm:justify-start max-sm:max-w-none">
        {q.fields && q.grade ? (
          <Figures question={q} fields={q.fields} temperature={settings.temperature} keep={keep} />
        ) : null}
        {q.answers.map((a) => (
          <button
            key={a.id}
            type="button"
            className={`btn min-w-14.5${now?.answer === a.id ? ' btn-neutral' : ''}`}
            aria-pressed={now?.answer === a.id}
            onClick={() => keep(a.id)}
          >
            {a.label.charAt(0).toUpperCase() + a.label.slice(1)}
          </button>
        ))}
      </span>
    </div>
  );
}

/** Figures typed, graded when all are there and in their limits. */
function Figures({
  question,
  fields,
  temperature,
  keep,
}: {
  question: ObservationKind;
  fields: readonly Field[];
  temperature: TemperatureUnit;
  keep(answer: string, values: Record<string, number>): void;
}) {
  const { rig } = useJobFile();
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string>();
  const take = () => {
    const values: Record<string, number> = {};
    for (const f of fields) {
      const text = (typed[f.id] ?? '').trim();
      const read = readFigure(text, shownUnit(f, temperature));
      // An ohmmeter says OL on an open circuit.
      const n = f.unit === 'ohm' && /^o\.?l\.?$/i.test(text) ? f.max : read.is === 'figure' ? read.value : NaN;
      const stored = f.unit === '°C' ? celsiusStored(n, temperature) : n;
      if (!Number.isFinite(n) || stored < f.min || stored > f.max) {
        const usual =
          `a number in ${shownUnit(f, temperature) || 'the usual range'}` + (f.unit === 'ohm' ? ', or OL' : '');
        setProblem(`${f.label}: ${read.is === 'wrong' ? read.says : usual}`);
        return;
      }
      values[f.id] = Number(stored.toFixed(4));
    }
    setProblem(undefined);
    keep(grade(question.grade!, values, rig.vehicles[0]!.nominalVolts).answer, values);
  };
  return (
    <form
      className="figures flex flex-wrap items-end justify-end basis-full gap-1.5 max-sm:justify-start"
      onSubmit={(e) => (e.preventDefault(), take())}
    >
      {fields.map((f) => (
        <label className="grid gap-0.5 text-note" key={f.id}>
          <span className="text-note text-ink-2 leading-tight">{f.label}</span>
          <span
            className={clsx(
              'with-unit',
              'flex items-center',
              'overflow-hidden border border-ink rounded bg-card',
              'text-note text-ink-2 leading-tight',
            )}
          >
            <input
              className={clsx(
                'input',
                'flex-1',
                'h-11 min-w-0 w-23 border-0 border-ink bg-card',
                'font-cond font-semibold text-right text-large text-ink tabular-nums',
                'focus:outline-none',
              )}
              inputMode="decimal"
              value={typed[f.id] ?? ''}
              onChange={(e) => setTyped({ ...typed, [f.id]: e.target.value })}
            />
            {shownUnit(f, temperature) && (
              <b className="block pr-2.5 pl-0.5 font-cond text-lead leading-close">{shownUnit(f, temperature)}</b>
            )}
          </span>
        </label>
      ))}
      <button type="submit" className="btn">
        Grade it
      </button>
      {problem && <em role="alert">{problem}</em>}
    </form>
  );
}
