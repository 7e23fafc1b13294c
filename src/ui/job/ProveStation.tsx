'use client';
/** The same probes again, against the healthy bands: before, after, right or not. */
import { CircleCheck } from 'lucide-react';
import Link from 'next/link';
import { operatingState } from '../../core/operate/states';
import { show, showBand, showText } from '../../core/units/format';
import { Sign } from '../strip/glyphs';
import { BandMark } from './BandMark';
import { useBench } from './bench';

export function ProveStation() {
  const bench = useBench();
  const { job, proofs, measurements, selected, select } = bench;
  const repaired = job.repairs.some((r) => !r.withdrawn);
  if (!repaired)
    return (
      <div className="empty">
        <p>
          Proof comes after the repair: the probes that were out of their band, and the link’s own function, are measured again here against what a healthy rig reads.
        </p>
        <button type="button" className="bx" onClick={() => bench.go('fault')}>
          To the fault
        </button>
      </div>
    );
  const right = proofs?.filter((p) => p.after?.verdict === 'ok').length ?? 0;
  const all = proofs !== undefined && right === proofs.length;
  return (
      <div className="prove">
        <div className="hdln bar-head">
          <b>Proof after the repair</b>
          <span>
            {right} of {proofs?.length ?? 0} in band
          </span>
        </div>
        <div className="sscroll">
          {proofs?.map((p) => {
            const m = measurements.find((x) => x.red === p.probe && x.black === p.ref);
            const on = m !== undefined && selected?.id === m.id && p.state === job.rigState.id;
            return (
              <button key={`${p.state}${p.probe}${p.ref}`} type="button" className={`proof${on ? ' on' : ''}${p.after && p.after.verdict !== 'ok' ? ' bad' : ''}`} onClick={() => m && (select(m), p.state !== job.rigState.id && bench.openStates(p.state))}>
                <span className={`pd${p.label.includes('–') ? ' pair' : ''}`}>{p.label.includes('–') ? 'Δ' : p.label}</span>
                <span className="nm">
                  <b>
                    {p.label}, {p.name.toLowerCase()}
                  </b>
                  <small>
                    {operatingState(p.state).label} · {p.why}
                  </small>
                </span>
                <span className="was">
                  {p.before ? (
                    <>
                      <Sign verdict={p.before.verdict} size={13} onInk={on} /> was {showText(p.before.value, p.band.unit)}
                    </>
                  ) : (
                    'not taken before'
                  )}
                </span>
                <span className="bw">
                  <BandMark band={p.band} value={p.after?.value} />
                  <span className="bd2">{showBand(p.band.lo, p.band.hi, p.band.unit)}</span>
                </span>
                <span className="v">
                  {p.after ? (
                    <>
                      {show(p.after.value, p.band.unit).text}
                      <small>{show(p.after.value, p.band.unit).unit}</small> <Sign verdict={p.after.verdict} size={15} onInk={on} />
                    </>
                  ) : (
                    '–'
                  )}
                </span>
              </button>
            );
          })}
          {all && (
            <div className="stampbox">
              <span className="stamp">
                <CircleCheck size={20} aria-hidden="true" /> Right now, every proof in band
              </span>
              <Link className="bx" href={`/jobs/${job.number}/report`}>
                Open the one-page report
              </Link>
            </div>
          )}
          <p className="quiet pad">
            After any work at a tow connector prove brakes, lights and breakaway as well. Local codes, the vehicle maker’s guide and licensed practice come first.
          </p>
        </div>
      </div>
  );
}
