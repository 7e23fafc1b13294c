'use client';
/** The job's files, out and in: the whole job, readings as a table, drawings, reports, dates. */
import { format } from 'date-fns';
import { FileDown, FileUp } from 'lucide-react';
import { useRef, useState } from 'react';
import { currentRevision } from '../../core/job/job';
import { parseReadingsCsv, READINGS_CSV_LIMIT, readingsCsv, type ReadingsIn } from '../../core/openFormats/readingsCsv';
import { operatingState } from '../../core/operate/states';
import { counted } from '../../core/units/counted';
import { showText } from '../../core/units/format';
import { useJobFile, useEntries } from '../shell/jobPage';
import { ServerFile } from '../ServerFile';
import { download } from '../download';

const STATUS_WORDS = { measured: 'measured', overload: 'over range', 'cannot-reach': 'can’t reach' } as const;
const leftOut = ({ here, before }: ReadingsIn): string =>
  [
    here > 0 && `${counted(here, 'reading')} of the table ${here === 1 ? 'is' : 'are'} here already.`,
    before > 0 &&
      `${counted(before, 'reading')} ${before === 1 ? 'is' : 'are'} about the rig before it was changed ` +
        `and ${before === 1 ? 'stays' : 'stay'} out.`,
  ]
    .filter(Boolean)
    .join(' ');

/** What is asked next must be on the screen; once, so that it stays where somebody scrolls it. */
const intoView = (box: HTMLElement | null): void => box?.scrollIntoView({ block: 'nearest' });

export function Files() {
  const { job, described, words } = useJobFile();
  const { send } = useEntries();
  const input = useRef<HTMLInputElement>(null);
  const [found, setFound] = useState<{ name: string } & ReadingsIn>();
  const [wrong, setWrong] = useState<string[]>([]);
  const [taken, setTaken] = useState<number>();
  const n = job.number;
  const open = async (file: File) => {
    setFound(undefined);
    setTaken(undefined);
    if (file.size > READINGS_CSV_LIMIT)
      return setWrong([
        `The file has ${Math.round(file.size / 1024)} kB; readings have at most ` +
          `${READINGS_CSV_LIMIT / 1024} kB. A recorder’s log is read under “Read a log”.`,
      ]);
    const parsed = parseReadingsCsv(await file.text(), job, Date.now());
    if (parsed.ok) {
      setWrong([]);
      setFound({ name: file.name, ...parsed.value });
    } else setWrong(parsed.error.map((e) => `${e.pointer}: found ${e.found}, wanted ${e.wanted}`));
  };
  const keep = () => {
    for (const { taken: at, ...r } of found!.readings)
      send('reading.keep', {
        id: crypto.randomUUID(),
        ...r,
        ...(at === undefined ? {} : { takenAt: new Date(at).toISOString() }),
      });
    setTaken(found!.readings.length);
    setFound(undefined);
  };
  const links: readonly [string, string][] = [
    ['Job with its photos and logs (zip)', `/api/jobs/${n}/file`],
    ['Report (PDF)', `/api/jobs/${n}/report.pdf`],
    ['Owner’s card (PDF)', `/api/jobs/${n}/card.pdf`],
    ['Wiring (PDF)', `/api/jobs/${n}/wiring.pdf?revision=${currentRevision(job).id}`],
    ['Who did what (CSV)', `/api/jobs/${n}/trail.csv`],
    ['Dates (iCalendar)', `/api/jobs/${n}/follow-ups.ics`],
  ];
  return (
    <div className="files grid gap-3.5 max-w-215 px-4 py-3 text-plain">
      <h3 className="font-cond font-bold text-head">Out</h3>
      <div className="row flex flex-wrap items-center gap-2">
        {links.map(([label, href]) => (
          <ServerFile key={href} href={href}>
            {label}
          </ServerFile>
        ))}
        <button
          type="button"
          className="btn"
          onClick={() => download(`job-${n}-readings.csv`, 'text/csv;charset=utf-8', readingsCsv(job))}
        >
          <FileDown size={20} aria-hidden="true" /> Readings (CSV)
        </button>
      </div>
      <p className="quiet">
        Parts and cut list are under Build, the wiring as SVG on its own page. Whose rig it is stays with the shop: it
        is in no job file.
      </p>
      <h3 className="font-cond font-bold text-head">In</h3>
      <div className="row flex flex-wrap items-center gap-2">
        <button type="button" className="btn" onClick={() => input.current?.click()}>
          <FileUp size={20} aria-hidden="true" /> Readings from a table (CSV)
        </button>
        <input
          ref={input}
          type="file"
          className="sr-only"
          aria-label="Table of readings"
          accept=".csv,text/csv"
          onChange={(e) => e.target.files?.[0] && void open(e.target.files[0])}
        />
      </div>
      {wrong.length > 0 && (
        <div className="alert alert-error alert-outline" role="alert">
          <div>
            Nothing was taken. {wrong.length > 8 ? `The first of ${wrong.length}:` : ''}
            {wrong.slice(0, 8).map((w) => (
              <p key={w}>{w}</p>
            ))}
          </div>
        </div>
      )}
      {found && (
        <div className="found grid gap-2.5 p-3 border border-ink rounded bg-card" ref={intoView}>
          <p>
            <b>{found.name}</b>: {counted(found.readings.length, 'reading')}, to be kept as entered by you.{' '}
            {leftOut(found)}
          </p>
          <ul className="logsays grid gap-0.75 pl-5.5 text-plain leading-tight list-disc">
            {found.readings.slice(0, 4).map((r, i) => {
              const probe = described.probes.find((p) => p.key === r.probe);
              return (
                <li key={i}>
                  {probe?.label} {words(probe?.name ?? '')}:{' '}
                  {r.value === undefined ? STATUS_WORDS[r.status] : showText(r.value, r.unit)},{' '}
                  {words(operatingState(r.state).label.toLowerCase())},{' '}
                  {r.taken === undefined ? 'now' : format(new Date(r.taken), 'd MMM yyyy HH:mm')}
                </li>
              );
            })}
            {found.readings.length > 4 && <li>and {found.readings.length - 4} more</li>}
          </ul>
          <div className="row flex flex-wrap items-center gap-2">
            {found.readings.length > 0 && (
              <button type="button" className="btn btn-neutral" onClick={keep}>
                Keep them
              </button>
            )}
            <button type="button" className="btn" onClick={() => setFound(undefined)}>
              Leave them
            </button>
          </div>
        </div>
      )}
      {taken !== undefined && (
        <p role="status">{counted(taken, 'reading')} kept. Each can be taken back on the sheet.</p>
      )}
      <p className="quiet">A whole job file is taken in on the board.</p>
    </div>
  );
}
