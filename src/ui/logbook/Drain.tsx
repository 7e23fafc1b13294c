'use client';
/** The worksheet of a hunt for what flattens a standing battery. */
import { clsx } from 'clsx';
import { TriangleAlert } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { canonical } from '../../core/units/canonical';
import { FUSE_OHMS, drawTestResult, SLEEP_MINUTES } from '../../core/jobAnswers/parasiticDrawTest';
import type { Hunt } from '../../core/job/job';
import { useJobFile, useEntries } from '../shell/jobPage';
import { readFigure } from '../../core/units/typedFigure';
import { OpenFigure } from '../fields';

/** What most circuits have. */
const USUAL_FUSE = 'blade-10';
const EMPTY: Hunt = { sleptMinutes: 0, circuits: [] };

export function Drain() {
  const { job, described, words } = useJobFile();
  const { send } = useEntries();
  // Two entries may follow within a blink, before the first has come round: the second builds on it.
  const [sent, setSent] = useState<Hunt>();
  const stands = sent ?? job.hunt;
  const hunt = stands ?? EMPTY;
  const result = drawTestResult(hunt, described);
  const latest = useRef(stands);
  useEffect(() => {
    latest.current = stands;
  }, [stands]);
  const set = (change: (now: Hunt) => Hunt) => {
    const was = latest.current;
    const next = change(was ?? EMPTY);
    latest.current = next;
    setSent(next);
    send('hunt.set', { ...(was ? { was } : {}), set: next });
  };
  // What came round, or was refused, is read from the record again.
  useEffect(() => {
    if (!sent) return;
    const timer = setTimeout(() => setSent(undefined), canonical(sent) === canonical(job.hunt) ? 0 : 4000);
    return () => clearTimeout(timer);
  }, [sent, job.hunt]);
  return (
    <div className="drain grid content-start gap-2.5 max-w-245 px-4 py-3">
      <p className="quiet">
        Latch the doors, take the key away, wait {SLEEP_MINUTES} to 60 minutes. Never break the circuit: clamp round the
        battery’s negative, then millivolts across each fuse, before any is pulled.
      </p>
      <p className="care flex gap-1.75 font-semibold text-warn text-note">
        <TriangleAlert size={16} aria-hidden="true" /> Never tap or pull fuses of airbags, brakes or the engine’s
        computer.
      </p>
      <div className="chk-do">
        <OpenFigure
          label="Asleep for"
          unit="min"
          value={hunt.sleptMinutes}
          max={1440}
          onKeep={(v) => set((h) => ({ ...h, sleptMinutes: v ?? 0 }))}
        />
        <OpenFigure
          label="All of it, by clamp"
          unit="A"
          value={hunt.amps}
          max={200}
          onKeep={(v) => set(({ amps: _, ...rest }) => (v === undefined ? rest : { ...rest, amps: v }))}
        />
        <OpenFigure
          label="Once put right"
          unit="A"
          value={hunt.after}
          max={200}
          onKeep={(v) => set(({ after: _, ...rest }) => (v === undefined ? rest : { ...rest, after: v }))}
        />
      </div>
      {result.says.length > 0 && (
        <ul className="logsays grid gap-0.75 pl-5.5 text-plain leading-tight list-disc">
          {result.says.map((s) => (
            <li key={s}>{words(s)}</li>
          ))}
        </ul>
      )}
      {result.lines.length > 0 && (
        <table className="logtable w-full text-note">
          <thead>
            <tr>
              <th className="px-1.5 py-0.75 border-b border-ink text-left">Circuit</th>
              <th className="px-1.5 py-0.75 border-b border-ink text-left">Fuse</th>
              <th className="px-1.5 py-0.75 border-b border-ink font-cond text-right text-lead whitespace-nowrap">
                mV
              </th>
              <th className="px-1.5 py-0.75 border-b border-ink font-cond text-right text-lead whitespace-nowrap">
                Amps
              </th>
              <th className="px-1.5 py-0.75 border-b border-ink text-left">Meant to draw</th>
              <th className="px-1.5 py-0.75 border-b border-ink text-left" />
            </tr>
          </thead>
          <tbody>
            {result.lines.map((l, i) => {
              const c = hunt.circuits[i]!;
              return (
                <tr key={l.id} className={l.suspect ? 'suspect' : ''}>
                  <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle within-suspect:bg-warn-tint">
                    <b>{c.name}</b>
                    {l.suspect ? ' – look here' : ''}
                  </td>
                  <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle within-suspect:bg-warn-tint">
                    {FUSE_OHMS.find((f) => f.id === c.fuse)?.label}
                  </td>
                  <td
                    className={clsx(
                      'px-1.5 py-1 border-b-1 border-rule',
                      'font-cond text-right text-lead leading-tight align-middle whitespace-nowrap',
                      'within-suspect:bg-warn-tint',
                    )}
                  >
                    {c.millivolts} mV
                  </td>
                  <td
                    className={clsx(
                      'px-1.5 py-1 border-b-1 border-rule',
                      'font-cond text-right text-lead leading-tight align-middle whitespace-nowrap',
                      'within-suspect:bg-warn-tint',
                    )}
                  >
                    {l.amps.toFixed(2)} A{' '}
                    <small>
                      ({l.lo.toFixed(2)} to {l.hi.toFixed(2)})
                    </small>
                  </td>
                  <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle within-suspect:bg-warn-tint">
                    <input
                      type="checkbox"
                      className="checkbox"
                      checked={c.known}
                      aria-label={`${c.name} is meant to draw`}
                      onChange={() =>
                        set((h) => ({
                          ...h,
                          circuits: h.circuits.map((x) => (x.id === c.id ? { ...x, known: !x.known } : x)),
                        }))
                      }
                    />
                  </td>
                  <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle within-suspect:bg-warn-tint">
                    <button
                      type="button"
                      className="btn btn-sm"
                      aria-label={`Take out ${c.name}`}
                      onClick={() => set((h) => ({ ...h, circuits: h.circuits.filter((x) => x.id !== c.id) }))}
                    >
                      Take out
                    </button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      <AddCircuit add={(c) => set((h) => ({ ...h, circuits: [...h.circuits, c] }))} />
      <p className="quiet">
        Amps are millivolts over what such a fuse usually measures, from memory; makers differ by some 15 %, told in
        brackets.
      </p>
    </div>
  );
}

function AddCircuit({ add }: { add(c: Hunt['circuits'][number]): void }) {
  const [name, setName] = useState('');
  const [fuse, setFuse] = useState(USUAL_FUSE);
  const [mv, setMv] = useState('');
  const read = readFigure(mv, 'mV');
  const n = read.is === 'figure' ? read.value : undefined;
  const valid = name.trim() !== '' && n !== undefined && Math.abs(n) <= 500;
  return (
    <form
      className="chk-do"
      onSubmit={(e) => {
        e.preventDefault();
        if (!valid) return;
        add({ id: crypto.randomUUID(), name: name.trim(), fuse, millivolts: n, known: false });
        setName('');
        setMv('');
      }}
    >
      <label className="field wide flex-1 w-37.5 min-w-37.5">
        <span>Circuit, as its lid says</span>
        <input className="input" maxLength={60} value={name} onChange={(e) => setName(e.target.value)} />
      </label>
      <label className="field wide flex-1 w-37.5 min-w-37.5">
        <span>Fuse</span>
        <select className="select min-h-12" value={fuse} onChange={(e) => setFuse(e.target.value)}>
          {FUSE_OHMS.map((f) => (
            <option key={f.id} value={f.id}>
              {f.label}
            </option>
          ))}
        </select>
      </label>
      <label className="field w-37.5">
        <span>Across it, mV</span>
        <input
          className="input"
          inputMode="decimal"
          value={mv}
          aria-invalid={mv.trim() !== '' && !valid && n === undefined}
          onChange={(e) => setMv(e.target.value)}
        />
      </label>
      <button type="submit" className="btn btn-neutral" disabled={!valid}>
        Add
      </button>
    </form>
  );
}
