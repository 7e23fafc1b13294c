'use client';
/** The job's files, out and in: the whole job, readings as a table, drawings, reports, dates. */
import { FileDown, FileUp } from 'lucide-react';
import { useRef, useState } from 'react';
import { currentRevision } from '../../core/formats/job';
import { parseReadingsCsv, READINGS_CSV_LIMIT, readingsCsv, type ReadingIn } from '../../core/formats/readingsCsv';
import { operatingState } from '../../core/operate/states';
import { showText } from '../../core/units/format';
import { useBench } from '../job/bench';
import { download } from '../options/exports';

export function Files() {
  const { job, described, send } = useBench();
  const input = useRef<HTMLInputElement>(null);
  const [found, setFound] = useState<{ name: string; readings: ReadingIn[] }>();
  const [wrong, setWrong] = useState<string[]>([]);
  const [taken, setTaken] = useState<number>();
  const n = job.number;
  const open = async (file: File) => {
    setFound(undefined);
    setTaken(undefined);
    if (file.size > READINGS_CSV_LIMIT) return setWrong([`The file has ${Math.round(file.size / 1024)} kB; readings have at most ${READINGS_CSV_LIMIT / 1024} kB. A recorder’s log is read under “Read a log”.`]);
    const parsed = parseReadingsCsv(await file.text(), described);
    if (parsed.ok) {
      setWrong([]);
      setFound({ name: file.name, readings: parsed.value });
    } else setWrong(parsed.error.map((e) => `${e.pointer}: found ${e.found}, wanted ${e.wanted}`));
  };
  const keep = () => {
    for (const r of found!.readings) send('reading.keep', { id: crypto.randomUUID(), ...r });
    setTaken(found!.readings.length);
    setFound(undefined);
  };
  const links: readonly [string, string][] = [
    ['Job with its photos (zip)', `/api/jobs/${n}/file`],
    ['Report (PDF)', `/api/jobs/${n}/report.pdf`],
    ['Owner’s card (PDF)', `/api/jobs/${n}/card.pdf`],
    ['Wiring (PDF)', `/api/jobs/${n}/wiring.pdf?revision=${currentRevision(job).id}`],
    ['Dates (iCalendar)', `/api/jobs/${n}/follow-ups.ics`],
  ];
  return (
    <div className="files">
      <h3>Out</h3>
      <div className="row">
        {links.map(([label, href]) => (
          <a key={href} className="bx" href={href} download>
            <FileDown size={20} aria-hidden="true" /> {label}
          </a>
        ))}
        <button type="button" className="bx" onClick={() => download(`job-${n}-readings.csv`, 'text/csv;charset=utf-8', readingsCsv(job))}>
          <FileDown size={20} aria-hidden="true" /> Readings (CSV)
        </button>
      </div>
      <p className="quiet">Parts and cut list are under Build, the wiring as SVG on its own page. Whose rig it is stays with the shop: it is in no job file.</p>
      <h3>In</h3>
      <div className="row">
        <button type="button" className="bx" onClick={() => input.current?.click()}>
          <FileUp size={20} aria-hidden="true" /> Readings from a table (CSV)
        </button>
        <input ref={input} type="file" className="sr-only" aria-label="Table of readings" accept=".csv,text/csv" onChange={(e) => e.target.files?.[0] && void open(e.target.files[0])} />
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
        <>
          <p>
            <b>{found.name}</b>: {found.readings.length} {found.readings.length === 1 ? 'reading' : 'readings'}, to be kept as taken by you, now. {found.readings.slice(0, 3).map((r) => `${described.probes.find((p) => p.key === r.probe)?.label} ${r.value === undefined ? r.status : showText(r.value, r.unit)}, ${operatingState(r.state).label.toLowerCase()}`).join('; ')}
            {found.readings.length > 3 ? ' …' : ''}
          </p>
          <div className="row">
            <button type="button" className="bx ink" onClick={keep}>
              Keep them
            </button>
            <button type="button" className="bx" onClick={() => setFound(undefined)}>
              Leave them
            </button>
          </div>
        </>
      )}
      {taken !== undefined && <p role="status">{taken} {taken === 1 ? 'reading is' : 'readings are'} kept. Each can be taken back on the sheet.</p>}
      <p className="quiet">A whole job file is taken in on the board.</p>
    </div>
  );
}
