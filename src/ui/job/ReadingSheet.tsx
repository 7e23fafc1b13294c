'use client';
/** The reading sheet: rows are what can be measured, nose to tail; the present state is the wide column. */
import { Ban } from 'lucide-react';
import { Fragment, useEffect, useRef } from 'react';
import type { Reading } from '../../core/formats/job';
import { OPERATING_STATES } from '../../core/operate/states';
import { judge, type Band } from '../../core/probe/judge';
import type { Measurement } from '../../core/probe/measurement';
import { show, showBand } from '../../core/units/format';
import { Sign } from '../strip/glyphs';
import { BandMark } from './BandMark';
import { readingOf, rigStateOf, useBench } from './bench';
import { LeadMark, usePointWords } from './Leads';

interface Group {
  place: string;
  rows: Measurement[];
}

/** Measurements by place, nose to tail; within a place volts, clamps, then drops. */
export function groupByPlace(measurements: readonly Measurement[]): Group[] {
  const kinds = ['volts', 'clamp', 'drop'];
  const groups = new Map<string, Measurement[]>();
  for (const m of [...measurements].sort((a, b) => a.station - b.station)) {
    groups.set(m.place, [...(groups.get(m.place) ?? []), m]);
  }
  return [...groups].map(([place, rows]) => ({
    place,
    rows: rows.sort((a, b) => kinds.indexOf(a.kind) - kinds.indexOf(b.kind) || a.station - b.station),
  }));
}

function Value({ reading, onInk = false, band }: { reading: Reading | undefined; onInk?: boolean; band: Band | undefined }) {
  if (!reading) return <span className="v none">–</span>;
  if (reading.status === 'cannot-reach')
    return (
      <span className="v word">
        <Ban size={14} aria-hidden="true" /> no reach
      </span>
    );
  if (reading.status === 'overload' || reading.value === undefined) return <span className="v word">OL</span>;
  const s = show(reading.value, reading.unit);
  return (
    <span className="v">
      {s.text}
      {s.unit !== 'V' && <small>{s.unit}</small>}
      {band && <Sign verdict={judge(reading.value, band)} size={13} onInk={onInk} />}
    </span>
  );
}

const isBad = (r: Reading | undefined, band: Band | undefined) =>
  r?.value !== undefined && band !== undefined && judge(r.value, band) !== 'ok';

export function ReadingSheet() {
  const bench = useBench();
  const { job, readings, measurements, selected, select, band, openLead, showWorking } = bench;
  const now = rigStateOf(job);
  const others = OPERATING_STATES.filter((s) => s.id !== now.id);
  const here = useRef<HTMLDivElement>(null);
  const words = usePointWords();
  useEffect(() => {
    here.current?.scrollIntoView({ block: 'nearest' });
  }, [selected?.id]);
  const taken = (state: string) => measurements.filter((m) => m.kind !== 'drop' && readingOf(readings, state, m)?.status === 'measured').length;
  const total = measurements.filter((m) => m.kind !== 'drop').length;
  return (
    <div className="sheet">
      <div className="ref">
        <LeadMark lead="black" />
        <span>
          <b>Black lead on:</b> {words(job.blackLead)}
        </span>
        <button type="button" onClick={openLead}>
          Move it
        </button>
      </div>
      <div className="sscroll" tabIndex={-1}>
        <div className="sg hd" aria-hidden="true">
          <div className="first">
            Probe<small>nose to tail</small>
          </div>
          <div className="now">
            {now.label}
            <small>
              {taken(now.id)} of {total}, now
            </small>
          </div>
          {others.map((s) => (
            <div key={s.id}>
              {s.short[0]}
              {s.short[1] && <br />}
              {s.short[1]}
              <small>
                {taken(s.id)}/{total}
              </small>
            </div>
          ))}
        </div>
        {groupByPlace(measurements).map(({ place, rows }) => (
          <Fragment key={place}>
            <div className="grp">
              <i />
              {place}
            </div>
            {rows.map((m) => {
              const r = readingOf(readings, now.id, m);
              const b = band(now.id, m.id);
              const on = selected?.id === m.id;
              return (
                <div key={m.id} ref={on ? here : undefined} className={`sg rw${on ? ' here' : ''}`}>
                  <button type="button" className="pn" onClick={() => select(m)} aria-pressed={on} aria-label={`${m.label} ${m.name}${r?.value === undefined ? ', to take' : `, ${show(r.value, r.unit).text} ${show(r.value, r.unit).unit}`}`}>
                    <span className={`pd${m.kind === 'drop' ? ' pair' : ''}`}>{m.kind === 'drop' ? 'Δ' : m.label}</span>
                    <span>
                      {m.name}
                      {m.kind === 'drop' && <small>{m.label}</small>}
                    </span>
                  </button>
                  <button type="button" className={`cw${isBad(r, b) && !on ? ' bad' : ''}`} onClick={() => showWorking(now.id, m)} aria-label={b ? `Show the working of the band ${showBand(b.lo, b.hi, b.unit)}` : 'band not known yet'}>
                    <Value reading={r} band={b} onInk={on} />
                    {b && (
                      <span className="bw">
                        <BandMark band={b} value={r?.value} />
                        <span className="bd2">{showBand(b.lo, b.hi, b.unit)}</span>
                      </span>
                    )}
                  </button>
                  {others.map((s) => {
                    const other = readingOf(readings, s.id, m);
                    const ob = band(s.id, m.id);
                    return (
                      <div key={s.id} className={`cell${isBad(other, ob) ? ' bad' : ''}`}>
                        <Value reading={other} band={ob} />
                      </div>
                    );
                  })}
                </div>
              );
            })}
          </Fragment>
        ))}
      </div>
    </div>
  );
}
