'use client';
/**
 * What one sees, hears, feels and tries: each question with its answers, each answer evidence like a reading.
 * Figures are graded by a rule that is shown. The newest answer stands; pressing it again takes it back.
 */
import { TriangleAlert } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { grade } from '../../core/diagnose/observations/grades';
import type { Field, ObservationKind } from '../../core/diagnose/observations/observationKind';
import { celsiusStored, type TemperatureUnit } from '../../core/units/preferences';
import { useJobPage } from '../shell/jobPage';
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
  const { questions, diagnosis } = useJobPage();
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
        <div className="asks first">
          <Ask question={asked} focus />
        </div>
      )}
      <div className="tabs-row" role="tablist" aria-label="Kind of question">
        {GROUPS.filter((g) => questions.some((q) => q.group === g.id)).map((g) => (
          <button
            key={g.id}
            type="button"
            role="tab"
            aria-selected={g.id === group}
            className={`bx${g.id === group ? ' ink' : ''}`}
            onClick={() => setGroup(g.id)}
          >
            {g.title}
          </button>
        ))}
      </div>
      <p className="lead-in">
        Answer what you looked at; leave the rest. What would tell most stands first. Press an answer again to take it
        back.
      </p>
      <div className="asks">
        {list.map((q) => (
          <Ask key={q.id} question={q} />
        ))}
      </div>
    </Sheet>
  );
}

function Ask({ question: q, focus = false }: { question: ObservationKind; focus?: boolean }) {
  const { job, epoch, rig, send, settings, stateOf } = useJobPage();
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
    <div ref={ref} className="ask" role="group" aria-label={q.ask}>
      <span className="what">
        <b>{q.ask}</b>
        <span>
          {q.state !== undefined && q.state !== job.rigState.id && <em>{stateOf(q.state).label}. </em>}
          {q.how}
        </span>
        {q.caution && (
          <span className="care">
            <TriangleAlert size={15} aria-hidden="true" /> {q.caution}
          </span>
        )}
        {why && <span className="grade">{why}</span>}
      </span>
      <span className="picks">
        {q.fields && q.grade ? (
          <Figures question={q} fields={q.fields} temperature={settings.temperature} keep={keep} />
        ) : null}
        {q.answers.map((a) => (
          <button
            key={a.id}
            type="button"
            className={`bx${now?.answer === a.id ? ' ink' : ''}`}
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
  const { rig } = useJobPage();
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
    <form className="figures" onSubmit={(e) => (e.preventDefault(), take())}>
      {fields.map((f) => (
        <label key={f.id}>
          <span>{f.label}</span>
          <span className="with-unit">
            <input
              className="input"
              inputMode="decimal"
              value={typed[f.id] ?? ''}
              onChange={(e) => setTyped({ ...typed, [f.id]: e.target.value })}
            />
            {shownUnit(f, temperature) && <b>{shownUnit(f, temperature)}</b>}
          </span>
        </label>
      ))}
      <button type="submit" className="bx">
        Grade it
      </button>
      {problem && <em role="alert">{problem}</em>}
    </form>
  );
}
