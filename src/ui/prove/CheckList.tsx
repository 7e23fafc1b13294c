'use client';
/** Checks of the finished rig that are more than one reading: how, why, the limit, what was found. */
import { clsx } from 'clsx';
import { TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { standingChecks, watchEntries, type CheckRecord } from '../../core/job/job';
import { passes, type CheckValue, type RigCheck } from '../../core/prove/check';
import type { Settings } from '../../core/shop/shop';
import { celsiusShown, celsiusStored } from '../../core/units/preferences';
import { Sign } from '../strip/glyphs';
import { useJobFile, useAnswers, usePlace, useEntries } from '../shell/jobPage';
import { readFigure } from '../../core/units/typedFigure';
import { useDraft } from '../draft';

/** A value in the shop's unit, with it. */
const shown = (settings: Settings, v: CheckValue, value: number): string =>
  v.unit === '°C'
    ? `${Math.round(celsiusShown(value, settings.temperature))} °${settings.temperature}`
    : v.unit === 'times'
      ? `${value} times`
      : `${value.toFixed(value < 10 ? 2 : 0)}\u00a0${v.unit}`;

const unitOf = (settings: Settings, v: CheckValue): string => (v.unit === '°C' ? `°${settings.temperature}` : v.unit);

export function CheckList({ locked }: { locked: boolean }) {
  const { job, epoch } = useJobFile();
  const { checks } = useAnswers();
  if (!checks) return null;
  const results = standingChecks(job, epoch);
  const due = checks.filter((c) => c.required);
  const advised = checks.filter((c) => !c.required);
  return (
    <>
      {due.length > 0 && (
        <h3 className="hdln flex-none h-9.5 px-3 border-y-2 border-ink">
          <b className="text-head leading-close">Checks</b>{' '}
          <span className="font-medium text-note text-ink-2">
            {due.filter((c) => results.get(c.id)).length} of {due.length} done
          </span>
        </h3>
      )}
      {due.map((c) => (
        <CheckRow key={c.id} check={c} result={results.get(c.id)} locked={locked} />
      ))}
      {advised.length > 0 && (
        <h3 className="hdln flex-none h-9.5 px-3 border-y-2 border-ink">
          <b className="text-head leading-close">Advised</b>{' '}
          <span className="font-medium text-note text-ink-2">not needed for the signature after this work</span>
        </h3>
      )}
      {advised.map((c) => (
        <CheckRow key={c.id} check={c} result={results.get(c.id)} locked={locked} />
      ))}
    </>
  );
}

const RESULT_WORDS: Readonly<Record<CheckRecord['result'], string>> = {
  pass: 'passed',
  fail: 'failed',
  'does-not-apply': 'does not apply',
  entry: '',
};

const NOTHING_TYPED: Record<string, string> = {};

function CheckRow({ check, result, locked }: { check: RigCheck; result: CheckRecord | undefined; locked: boolean }) {
  const file = useJobFile();
  const place = usePlace();
  const { send } = useEntries();
  const draft = `${file.job.number}/check/${file.epoch}/${check.id}`;
  const [typed, setTyped, forgetTyped] = useDraft<Record<string, string>>(`${draft}/figures`, NOTHING_TYPED);
  const [note, setNote, forgetNote] = useDraft(`${draft}/note`, '');
  const [again, setAgain] = useState(false);
  const entries = watchEntries(file.job, file.epoch, check.id);
  const values = readValues(file.settings, check, typed);
  // What a watch found is its highest entry.
  const found: Record<string, number> = {};
  for (const e of entries)
    for (const [k, v] of Object.entries(e.values ?? {})) found[k] = Math.max(found[k] ?? -Infinity, v);
  for (const [k, v] of Object.entries(values)) found[k] = check.watch ? Math.max(found[k] ?? -Infinity, v) : v;
  const ok = passes(check, found);
  const limited = check.values.some((v) => v.most !== undefined);
  const record = (outcome: CheckRecord['result'], of: Record<string, number>) => {
    send('check.record', {
      id: crypto.randomUUID(),
      check: check.id,
      result: outcome,
      ...(Object.keys(of).length > 0 ? { values: of } : {}),
      ...(note.trim() ? { note: note.trim() } : {}),
    });
    forgetTyped();
    if (outcome !== 'entry') {
      forgetNote();
      setAgain(false);
    }
  };
  const current = place.next.kind === 'check' && place.next.check === check.id;
  const first = entries[0] ? new Date(entries[0].at).getTime() : 0;
  return (
    <section
      className={clsx(
        'grid gap-1',
        'px-3 pt-2.25 pb-2.75 border-b-1 border-rule',
        'text-note leading-tight',
        `chk${current ? ' now' : ''}${result?.result === 'fail' ? ' bad' : ''}`,
      )}
      id={`check-${check.id}`}
      aria-label={check.name}
    >
      <header className="flex flex-wrap items-baseline gap-x-3 gap-y-0.5">
        <b className="font-cond font-bold text-large leading-close">{check.name}</b>
        <span className="text-ink-2">
          {file.stateOf(check.state).label}, about {check.minutes} min
        </span>
        {result && (
          <strong className="inline-flex items-center gap-1.25 ml-auto font-cond text-lead">
            <Sign verdict={result.result === 'fail' ? 'high' : 'ok'} size={15} /> {RESULT_WORDS[result.result]}
            {Object.entries(result.values ?? {}).map(([k, v]) => {
              const spec = check.values.find((x) => x.id === k);
              return spec ? `, ${shown(file.settings, spec, v)}` : '';
            })}
          </strong>
        )}
      </header>
      <p>{check.how}</p>
      <p className="quiet">
        Why: {check.why}.{' '}
        {check.values
          .filter((v) => v.most !== undefined)
          .map((v) => `${v.label} at most ${shown(file.settings, v, v.most!)} (${v.source})`)
          .join('; ')}
      </p>
      {check.caution && (
        <p className="care flex items-start gap-1.75">
          <TriangleAlert size={15} aria-hidden="true" />
          <span>{check.caution}</span>
        </p>
      )}
      {result?.note && <p>{result.note}</p>}
      {entries.length > 0 && (
        <table className="entries w-full text-note">
          <thead>
            <tr>
              <th className="border-b border-ink font-semibold text-left">Minute</th>
              {check.values.map((v) => (
                <th key={v.id} className="border-b border-ink font-semibold text-right">
                  {v.label}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {entries.map((e) => (
              <tr key={e.id}>
                <td className="border-b-1 border-rule font-cond text-plain">
                  {Math.round((new Date(e.at).getTime() - first) / 60_000)}
                </td>
                {check.values.map((v) => (
                  <td key={v.id} className="border-b-1 border-rule font-cond text-plain text-right">
                    {e.values?.[v.id] === undefined ? '–' : shown(file.settings, v, e.values[v.id]!)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {!locked && result && !again && (
        <button type="button" className="btn btn-sm justify-self-start" onClick={() => setAgain(true)}>
          Do it again
        </button>
      )}
      {!locked && (!result || again) && (
        <div className="chk-do">
          {check.values.map((v) => (
            <label key={v.id} className="field w-32">
              <span>
                {v.label}, {unitOf(file.settings, v)}
              </span>
              <input
                className="input"
                inputMode="decimal"
                value={typed[v.id] ?? ''}
                aria-invalid={typed[v.id] !== undefined && typed[v.id] !== '' && values[v.id] === undefined}
                onChange={(e) => setTyped({ ...typed, [v.id]: e.target.value })}
                autoComplete="off"
              />
            </label>
          ))}
          <label className="field wide flex-1 w-32 min-w-37.5">
            <span>Note</span>
            <input
              className="input"
              maxLength={400}
              value={note}
              onChange={(e) => setNote(e.target.value)}
              autoComplete="off"
            />
          </label>
          {check.watch && (
            <button
              type="button"
              className="btn"
              disabled={Object.keys(values).length === 0}
              onClick={() => record('entry', values)}
            >
              Write down, go on
            </button>
          )}
          <button type="button" className="btn" disabled={limited && ok !== true} onClick={() => record('pass', found)}>
            Pass
          </button>
          <button type="button" className="btn" onClick={() => record('fail', found)}>
            Fail
          </button>
          {!check.required || check.values.length === 0 ? null : (
            <button
              type="button"
              className="btn"
              disabled={note.trim() === ''}
              title="Say why in the note"
              onClick={() => record('does-not-apply', {})}
            >
              Does not apply
            </button>
          )}
          {ok === false && <p className="over">Over the limit: it does not pass.</p>}
        </div>
      )}
    </section>
  );
}

/** What is typed, SI; what is no number is left out. */
function readValues(
  settings: Settings,
  check: RigCheck,
  typed: Readonly<Record<string, string>>,
): Record<string, number> {
  const values: Record<string, number> = {};
  for (const v of check.values) {
    const read = readFigure(typed[v.id] ?? '', unitOf(settings, v));
    if (read.is !== 'figure') continue;
    values[v.id] = v.unit === '°C' ? celsiusStored(read.value, settings.temperature) : read.value;
  }
  return values;
}
