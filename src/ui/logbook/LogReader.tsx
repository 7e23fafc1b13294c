'use client';
/** A recorder's log: picked, its columns looked over, read aside, drawn, and said in words. */
import { format } from 'date-fns';
import { FileUp, TriangleAlert } from 'lucide-react';
import { useRef, useState } from 'react';
import { logFigure, type LogFigure } from '../../core/formats/log/figures';
import { headerKey, type ColumnMap } from '../../core/formats/log/readCsv';
import type { LogFace } from '../../core/formats/log/readLog';
import { valueInWords } from '../../core/formats/log/words';
import { LOG_ROLES, type LogRole } from '../../core/formats/log/series';
import { useBench } from '../job/bench';
import { LogChart } from './LogChart';
import type { ReadLog } from './source';

const ZONE = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';
const FORMATS: readonly { id: ColumnMap['format']; label: string }[] = [
  { id: 'iso', label: 'Year first' },
  { id: 'day-first', label: 'Day first' },
  { id: 'month-first', label: 'Month first' },
  { id: 'seconds', label: 'Seconds since 1970' },
  { id: 'milliseconds', label: 'Milliseconds since 1970' },
  { id: 'elapsed', label: 'Seconds since it began' },
];

export function LogReader() {
  const bench = useBench();
  const { logbook, rig, job, send, actor } = bench;
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File>();
  const [face, setFace] = useState<LogFace>();
  const [map, setMap] = useState<ColumnMap>();
  const [share, setShare] = useState<number>();
  const [log, setLog] = useState<ReadLog>();
  const [trouble, setTrouble] = useState<string>();
  const bank = rig.parts.find((p) => p.kind === 'battery-bank' && p.side === 'coach');
  const nominal = rig.vehicles.find((v) => v.id === (bank ?? rig.parts[0]!).vehicle)!.nominalVolts;

  const open = async (picked: File) => {
    setFile(picked);
    setLog(undefined);
    setTrouble(undefined);
    try {
      const seen = await logbook.face(picked, ZONE());
      setFace(seen);
      const known = seen.map && logbook.remembered(headerKey(seen.rows[seen.map.header] ?? []));
      setMap(known ?? seen.map);
    } catch (e) {
      setFace(undefined);
      setTrouble((e as Error).message);
    }
  };
  const read = async () => {
    if (!file || !face) return;
    setShare(0);
    setTrouble(undefined);
    try {
      const result = await logbook.read(file, face, map, { nominal, chemistry: bank?.options?.['chemistry'] ?? 'flooded' }, (s) => setShare(s));
      setLog(result);
      if (map) logbook.remember(headerKey(face.rows[map.header] ?? []), map);
    } catch (e) {
      setTrouble((e as Error).message);
    } finally {
      setShare(undefined);
    }
  };
  const keep = () => {
    if (!log || !file) return;
    const { reading } = log;
    const iso = (s: number) => new Date(Math.round(s) * 1000).toISOString();
    send('log.set', {
      set: {
        id: crypto.randomUUID(), name: file.name.slice(0, 120), from: iso(reading.from), to: iso(reading.to), rows: reading.rows, says: reading.says.map((s) => s.slice(0, 400)).slice(0, 20),
        estimates: reading.estimates.map(({ id, name, unit, value, lo, hi, bound }) => ({ id, name: name.slice(0, 80), unit, value, lo, hi, ...(bound ? { bound } : {}) })), at: new Date().toISOString(), by: actor,
      },
    });
  };
  // The drain of a sleeping start battery is what the clamp on its negative reads, the way the wire is drawn.
  const clamp = bench.measurements.find((m) => m.red === 'chassis-negative.clamp');
  const asleep = clamp && { red: clamp.red, label: clamp.label, sign: (bench.band('rested', clamp.id)?.nominal ?? -1) < 0 ? -1 : 1 };
  const kept = job.logs?.some((l) => l.name === file?.name && l.rows === log?.reading.rows) ?? false;
  return (
    <div className="logread">
      <div className="row">
        <button type="button" className="bx ink" onClick={() => input.current?.click()}>
          <FileUp size={20} aria-hidden="true" /> {file ? 'Another log' : 'Pick a log'}
        </button>
        <input ref={input} type="file" className="sr-only" aria-label="Log file" accept=".csv,.txt,.log,text/*" onChange={(e) => e.target.files?.[0] && void open(e.target.files[0])} />
        {file && <b className="fname">{file.name}</b>}
      </div>
      {!file && <p className="waiting">A recorder’s CSV, or a text log of the CAN bus with frames of DC sources. It is read on this device; only what it says is kept with the job.</p>}
      {trouble && (
        <p className="alert alert-error alert-outline" role="alert">
          {trouble}
        </p>
      )}
      {face && !log && share === undefined && <Mapping face={face} map={map} change={setMap} read={() => void read()} />}
      {share !== undefined && (
        <div className="row" role="status">
          <progress className="progress" value={share} max={1} aria-label="Reading the log" />
          <span>{Math.round(share * 100)} %</span>
          <button type="button" className="bx" onClick={() => logbook.cancel()}>
            Stop
          </button>
        </div>
      )}
      {log && (
        <>
          <ul className="logsays">
            {log.reading.says.map((s) => (
              <li key={s}>{bench.words(s)}</li>
            ))}
          </ul>
          {log.problems.length > 0 && (
            <details className="alert alert-warning alert-outline">
              <summary>
                <TriangleAlert size={16} aria-hidden="true" /> {Object.values(log.counts).reduce((a, b) => a + b, 0)} cells or lines were not what they should be
              </summary>
              {log.problems.map((p) => (
                <p key={`${p.line}${p.found}`}>
                  Line {p.line}: found {p.found}, wanted {p.wanted}
                </p>
              ))}
            </details>
          )}
          <LogChart log={log} window={(a, b, n) => logbook.window(a, b, n)} />
          {log.reading.estimates.length > 0 && (
            <table className="logtable">
              <thead>
                <tr>
                  <th>Estimated</th>
                  <th className="num">Value, 95 %</th>
                  <th>From</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {log.reading.estimates.map((e) => ({ e, f: logFigure(bench.described, e, file!.name) })).map(({ e, f }) => (
                  <tr key={e.id}>
                    <td>{bench.words(e.name)}</td>
                    <td className="num">{valueInWords(e)}</td>
                    <td>
                      {e.from}
                      {f && (
                        <small className="logfigure">
                          {bench.words(f.name)}: {isThere(f) ? 'this is it' : `${Number(f.was.value.toPrecision(4))} ${e.unit}, ${f.was.provenance}`}; {f.because}.
                        </small>
                      )}
                    </td>
                    <td>
                      {e.id === 'parasitic' && asleep && (
                        <button type="button" className="bx small" onClick={() => send('reading.keep', { id: crypto.randomUUID(), state: 'rested', probe: asleep.red, status: 'measured', value: Number((asleep.sign * e.value).toFixed(3)), unit: 'A', secondsInState: 3600 })}>
                          Keep as reading {asleep.label}
                        </button>
                      )}
                      {f && (
                        // It was described less well before: readings stay evidence.
                        <button type="button" className="bx small" disabled={isThere(f)} onClick={() => send('part.edit', { part: f.part, was: { params: { [f.param]: f.was } }, set: { params: { [f.param]: f.set } }, means: 'described-wrong' })}>
                          {isThere(f) ? 'Is the rig’s figure' : 'Make it the rig’s figure'}
                        </button>
                      )}
                      <button type="button" className="bx small" onClick={() => send('note.add', { id: crypto.randomUUID(), text: `From the log ${file!.name}: ${e.name} ${valueInWords(e)} (${e.from}).`.slice(0, 2000) })}>
                        Keep as note
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <details open={log.reading.events.length < 30}>
            <summary>{log.reading.events.length} events</summary>
            <ol className="logevents">
              {log.reading.events.slice(0, 200).map((e, i) => (
                <li key={i}>
                  <time>{format(new Date(e.t * 1000), 'd MMM HH:mm:ss')}</time> {bench.words(e.says)}
                </li>
              ))}
            </ol>
          </details>
          <button type="button" className="bx ink" disabled={kept} onClick={keep}>
            {kept ? 'Kept with the job' : 'Keep what it says with the job'}
          </button>
        </>
      )}
      {(job.logs ?? []).map((l) => (
        <article key={l.id} className="keptlog">
          <b>{l.name}</b>{' '}
          <small>
            {format(new Date(l.from), 'd MMM yyyy HH:mm')} to {format(new Date(l.to), 'd MMM HH:mm')}, {l.rows} lines
          </small>
          <ul>
            {l.says.slice(0, 4).map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
          <button type="button" className="bx small" onClick={() => send('log.set', { was: l })}>
            Take out
          </button>
        </article>
      ))}
    </div>
  );
}

/** Whether the rig's figure is the log's already. */
const isThere = (f: LogFigure): boolean => f.was.provenance === 'measured' && f.was.source === f.set.source && f.was.value === f.set.value;

function Mapping({ face, map, change, read }: { face: LogFace; map: ColumnMap | undefined; change(map: ColumnMap): void; read(): void }) {
  if (!map)
    return (
      <>
        <p>A log of the CAN bus: frames of DC sources are read by their numbers, 1 the coach bank, 2 the start battery.</p>
        <button type="button" className="bx ink" onClick={read}>
          <span>Read it</span>
        </button>
      </>
    );
  const header = face.rows[map.header] ?? [];
  const sample = face.rows[map.header + 1] ?? [];
  const roleOf = (i: number): string => (i === map.time ? 'time' : i === map.clock ? 'clock' : (map.columns.find((c) => c.index === i)?.role ?? ''));
  const set = (index: number, role: string) => {
    const { clock: _, ...bare } = map;
    const rest = map.columns.filter((c) => c.index !== index && c.role !== role);
    const base = map.clock === index ? bare : map;
    if (role === 'time') change({ ...base, time: index, columns: rest });
    else if (role === 'clock') change({ ...map, clock: index, columns: rest });
    else change({ ...base, columns: role === '' ? rest : [...rest, { index, role: role as LogRole, name: header[index] ?? `Column ${index + 1}`, times: /\bm[VA]\b|\(m[VA]\)/.test(header[index] ?? '') ? 0.001 : 1 }] });
  };
  return (
    <div className="mapping">
      <h3>What the columns are</h3>
      <table className="logtable">
        <tbody>
          {header.map((h, i) => (
            <tr key={i}>
              <td>
                <b>{h.trim() || `Column ${i + 1}`}</b>
              </td>
              <td>{sample[i]}</td>
              <td>
                <select className="select" aria-label={`Column ${h.trim() || i + 1} is`} value={roleOf(i)} onChange={(e) => set(i, e.target.value)}>
                  <option value="">not used</option>
                  <option value="time">Time</option>
                  <option value="clock">Time of day, beside the date</option>
                  {LOG_ROLES.map((r) => (
                    <option key={r.id} value={r.id}>
                      {r.label}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="chk-do">
        <label className="field">
          <span>Dates are</span>
          <select className="select" value={map.format} onChange={(e) => change({ ...map, format: e.target.value as ColumnMap['format'] })}>
            {FORMATS.map((f) => (
              <option key={f.id} value={f.id}>
                {f.label}
              </option>
            ))}
          </select>
        </label>
        <label className="field">
          <span>Decimals with</span>
          <select className="select" value={map.decimal} onChange={(e) => change({ ...map, decimal: e.target.value as '.' | ',' })}>
            <option value=".">a point</option>
            <option value=",">a comma</option>
          </select>
        </label>
        <label className="field wide">
          <span>Clock of the recorder</span>
          <select className="select" value={map.zone} onChange={(e) => change({ ...map, zone: e.target.value })}>
            {[...new Set([map.zone, ZONE(), 'UTC', ...Intl.supportedValuesOf('timeZone')])].map((z) => (
              <option key={z}>{z}</option>
            ))}
          </select>
        </label>
        <button type="button" className="bx ink" disabled={map.columns.length === 0} onClick={read}>
          <span>Read it</span>
        </button>
      </div>
      {map.columns.length === 0 && <p className="over">Say of at least one column what it is.</p>}
    </div>
  );
}
