'use client';
/** A recorder's log: picked, its columns looked over, read aside, drawn, and said in words. */
import { clsx } from 'clsx';
import { is } from '../../core/parts/kinds';
import { format } from 'date-fns';
import { FileUp, TriangleAlert } from 'lucide-react';
import { useRef, useState } from 'react';
import { logFigure, type LogFigure } from '../../core/recorderLog/figures';
import { headerKey, type ColumnMap } from '../../core/recorderLog/readCsv';
import type { LogFace } from '../../core/recorderLog/readLog';
import { valueInWords } from '../../core/recorderLog/words';
import { useJobFile, useMeasuring, useAnswers, useEntries } from '../shell/jobPage';
import { KeptLogs } from './KeptLogs';
import { LogChart } from './LogChart';
import { LogMapping } from './LogMapping';
import { ZONE } from './zones';
import type { KeptLog } from '../../core/job/job';
import type { ReadLog } from './source';

export function LogReader() {
  const jobFile = useJobFile();
  const { rig, job } = jobFile;
  const measuring = useMeasuring();
  const { logbook } = useAnswers();
  const { send, actor } = useEntries();
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File>();
  const [face, setFace] = useState<LogFace>();
  const [map, setMap] = useState<ColumnMap>();
  const [share, setShare] = useState<number>();
  const [log, setLog] = useState<ReadLog>();
  const [trouble, setTrouble] = useState<string>();
  const [whole, setWhole] = useState(true);
  const [keeping, setKeeping] = useState(false);
  const bank = rig.parts.find((p) => is(p, 'battery') && p.side === 'coach');
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
      const result = await logbook.read(
        file,
        face,
        map,
        { nominal, chemistry: bank?.options?.['chemistry'] ?? 'flooded' },
        (s) => setShare(s),
      );
      setLog(result);
      if (map) logbook.remember(headerKey(face.rows[map.header] ?? []), map);
    } catch (e) {
      setTrouble((e as Error).message);
    } finally {
      setShare(undefined);
    }
  };
  const keep = async () => {
    if (!log || !file) return;
    const { reading } = log;
    setKeeping(true);
    setTrouble(undefined);
    let kept: KeptLog['file'];
    try {
      if (whole) kept = await logbook.keepFile(file);
    } catch (e) {
      setTrouble(`The log itself could not be kept: ${(e as Error).message} What it says is.`);
    }
    setKeeping(false);
    const iso = (s: number) => new Date(Math.round(s) * 1000).toISOString();
    send('log.set', {
      set: {
        id: crypto.randomUUID(),
        name: file.name.slice(0, 120),
        from: iso(reading.from),
        to: iso(reading.to),
        rows: reading.rows,
        ...(kept ? { file: kept } : {}),
        says: reading.says.map((s) => s.slice(0, 400)).slice(0, 20),
        estimates: reading.estimates.map(({ id, name, unit, value, lo, hi, bound }) => ({
          id,
          name: name.slice(0, 80),
          unit,
          value,
          lo,
          hi,
          ...(bound ? { bound } : {}),
        })),
        at: new Date().toISOString(),
        by: actor,
      },
    });
  };
  const again = async (l: KeptLog) => {
    setTrouble(undefined);
    try {
      await open(await logbook.keptFile(l));
    } catch (e) {
      setTrouble((e as Error).message);
    }
  };
  // The drain of a sleeping start battery is what the clamp on its negative reads, the way the wire is drawn.
  const clamp = measuring.measurements.find((m) => m.red === 'chassis-negative.clamp');
  const asleep = clamp && {
    red: clamp.red,
    label: clamp.label,
    sign: (measuring.band('rested', clamp.id)?.nominal ?? -1) < 0 ? -1 : 1,
  };
  const kept = job.logs?.some((l) => l.name === file?.name && l.rows === log?.reading.rows) ?? false;
  return (
    <div className="grid content-start gap-2.5 max-w-245 px-4 py-3">
      <div className="row flex flex-wrap gap-2">
        <button type="button" className="btn btn-neutral" onClick={() => input.current?.click()}>
          <FileUp size={20} aria-hidden="true" /> {file ? 'Another log' : 'Pick a log'}
        </button>
        <input
          ref={input}
          type="file"
          className="sr-only"
          aria-label="Log file"
          accept=".csv,.txt,.log,text/*"
          onChange={(e) => e.target.files?.[0] && void open(e.target.files[0])}
        />
        {file && <b className="self-center font-cond text-large">{file.name}</b>}
      </div>
      {!file && (
        <p className="waiting py-2 text-note text-ink-2">
          A recorder’s CSV, or a text log of the CAN bus with frames of DC sources. It is read on this device. What it
          says is kept with the job when you say so, and the log itself if you like.
        </p>
      )}
      {trouble && (
        <p className="alert alert-error alert-outline" role="alert">
          {trouble}
        </p>
      )}
      {face && !log && share === undefined && (
        <LogMapping face={face} map={map} change={setMap} read={() => void read()} />
      )}
      {share !== undefined && (
        <div className="row flex flex-wrap gap-2" role="status">
          <progress className="progress flex-1 self-center" value={share} max={1} aria-label="Reading the log" />
          <span>{Math.round(share * 100)} %</span>
          <button type="button" className="btn" onClick={() => logbook.cancel()}>
            Stop
          </button>
        </div>
      )}
      {log && (
        <>
          <ul className="logsays grid gap-0.75 pl-5.5 text-plain leading-tight list-disc">
            {log.reading.says.map((s) => (
              <li key={s}>{jobFile.words(s)}</li>
            ))}
          </ul>
          {log.problems.length > 0 && (
            <details className="alert alert-warning alert-outline">
              <summary>
                <TriangleAlert size={16} aria-hidden="true" /> {Object.values(log.counts).reduce((a, b) => a + b, 0)}{' '}
                cells or lines were not what they should be
              </summary>
              {log.problems.map((p) => (
                <p key={`${p.line}${p.found}`}>
                  Line {p.line}: found {p.found}, wanted {p.wanted}
                </p>
              ))}
            </details>
          )}
          <LogChart log={log} window={logbook.window} />
          {log.reading.estimates.length > 0 && (
            <table className="logtable w-full text-note">
              <thead>
                <tr>
                  <th className="px-1.5 py-0.75 border-b border-ink text-left">Estimated</th>
                  <th className="px-1.5 py-0.75 border-b border-ink font-cond text-right text-lead whitespace-nowrap">
                    Value, 95 %
                  </th>
                  <th className="px-1.5 py-0.75 border-b border-ink text-left">From</th>
                  <th className="px-1.5 py-0.75 border-b border-ink text-left" />
                </tr>
              </thead>
              <tbody>
                {log.reading.estimates
                  .map((e) => ({ e, f: logFigure(jobFile.described, e, file!.name) }))
                  .map(({ e, f }) => (
                    <tr key={e.id}>
                      <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle">
                        {jobFile.words(e.name)}
                      </td>
                      <td
                        className={clsx(
                          'px-1.5 py-1 border-b-1 border-rule',
                          'font-cond text-right text-lead leading-tight align-middle whitespace-nowrap',
                        )}
                      >
                        {valueInWords(e)}
                      </td>
                      <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle">
                        {e.from}
                        {f && (
                          <small className="logfigure block mt-0.75 mb-1.25 text-ink-2 text-fine">
                            {jobFile.words(f.name)}:{' '}
                            {isThere(f)
                              ? 'this is it'
                              : `${Number(f.was.value.toPrecision(4))} ${e.unit}, ${f.was.provenance}`}
                            ; {f.because}.
                          </small>
                        )}
                      </td>
                      <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle">
                        {e.id === 'parasitic' && asleep && (
                          <button
                            type="button"
                            className="btn"
                            onClick={() =>
                              send('reading.keep', {
                                id: crypto.randomUUID(),
                                state: 'rested',
                                probe: asleep.red,
                                status: 'measured',
                                value: Number((asleep.sign * e.value).toFixed(3)),
                                unit: 'A',
                                secondsInState: 3600,
                              })
                            }
                          >
                            Keep as reading {asleep.label}
                          </button>
                        )}
                        {f && (
                          // It was described less well before: readings stay evidence.
                          <button
                            type="button"
                            className="btn btn-sm"
                            disabled={isThere(f)}
                            onClick={() =>
                              send('part.edit', {
                                part: f.part,
                                was: { params: { [f.param]: f.was } },
                                set: { params: { [f.param]: f.set } },
                                means: 'described-wrong',
                              })
                            }
                          >
                            {isThere(f) ? 'Is the rig’s figure' : 'Make it the rig’s figure'}
                          </button>
                        )}
                        <button
                          type="button"
                          className="btn btn-sm"
                          onClick={() =>
                            send('note.add', {
                              id: crypto.randomUUID(),
                              text: `From the log ${file!.name}: ${e.name} ${valueInWords(e)} (${e.from}).`.slice(
                                0,
                                2000,
                              ),
                            })
                          }
                        >
                          Keep as note
                        </button>
                      </td>
                    </tr>
                  ))}
              </tbody>
            </table>
          )}
          <details open={log.reading.events.length < 30}>
            <summary className="flex items-center gap-1.5 min-h-11 font-semibold cursor-pointer">
              {log.reading.events.length} events
            </summary>
            <ol className="grid gap-0.5 pt-1.5 text-note">
              {log.reading.events.slice(0, 200).map((e, i) => (
                <li key={i}>
                  <time className="inline-block min-w-32.5 font-cond text-plain">
                    {format(new Date(e.t * 1000), 'd MMM HH:mm:ss')}
                  </time>{' '}
                  {jobFile.words(e.says)}
                </li>
              ))}
            </ol>
          </details>
          <div className="row flex flex-wrap gap-2">
            <button type="button" className="btn btn-neutral" disabled={kept || keeping} onClick={() => void keep()}>
              {kept ? 'Kept with the job' : keeping ? 'Packing and sending …' : 'Keep what it says with the job'}
            </button>
            {!kept && (
              <label className="tick">
                <input
                  type="checkbox"
                  className="checkbox flex-none border-ink"
                  checked={whole}
                  onChange={(e) => setWhole(e.target.checked)}
                />{' '}
                and the log itself, to be read again
              </label>
            )}
          </div>
        </>
      )}
      <KeptLogs again={(l) => void again(l)} />
    </div>
  );
}

/** Whether the rig's figure is the log's already. */
const isThere = (f: LogFigure): boolean =>
  f.was.provenance === 'measured' && f.was.source === f.set.source && f.was.value === f.set.value;
