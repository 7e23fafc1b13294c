'use client';
/** The same probes again, against the healthy bands: before, after, right or not. */
import { madeBy, standingChecks, standingSignOff } from '../../core/job/job';
import { midSentence, show, showBand, showText } from '../../core/units/format';
import { Sign } from '../strip/glyphs';
import { BandMark } from '../readings/BandMark';
import { useJobPage } from '../shell/jobPage';
import { PHONE } from '../useMedia';
import type { Measurement } from '../../core/probe/measurement';
import { CheckList } from './CheckList';
import { SignBox } from './SignBox';
import { WhatWillBeProved } from './WhatWillBeProved';

/** How long a state has to last before a reading in it counts. */
const waited = (seconds: number): string => (seconds < 90 ? `${seconds} s` : `${Math.round(seconds / 60)} min`);

export function ProveStation() {
  const page = useJobPage();
  const { job, proofs, measurements, selected, select } = page;
  const made = madeBy(job);
  if (!made)
    return (
      <div className="mx-auto grid max-w-3xl content-start justify-items-start gap-3 overflow-y-auto p-6 text-base leading-snug">
        <p>
          Proof comes after the repair or the build: the probes that were out of their band, and the link’s own
          function, are measured again here against what a healthy rig of this kind reads.
        </p>
        <button type="button" className="bx" onClick={() => page.go('fault')}>
          To the fault
        </button>
        <WhatWillBeProved />
      </div>
    );
  const right = proofs?.filter((p) => p.after?.verdict === 'ok').length ?? 0;
  const signed = standingSignOff(job) !== undefined;
  const results = standingChecks(job, page.epoch);
  const checked =
    page.checks?.every((c) => (c.required ? results.has(c.id) : true) && results.get(c.id)?.result !== 'fail') ?? false;
  /** Puts a proof in hand; on a phone the keypad stands under Readings. */
  const take = (m: Measurement, state: string) => {
    select(m);
    if (window.matchMedia(PHONE).matches) page.go('readings');
    if (state !== job.rigState.id) page.openStates(state);
  };
  const all = proofs !== undefined && proofs.length > 0 && right === proofs.length && checked;
  return (
    <div className="prove">
      <div className="hdln bar-head">
        <b>Proof after the {made}</b>
        <span>
          {right} of {proofs?.length ?? 0} in band
        </span>
      </div>
      <div className="sscroll">
        {proofs?.map((p) => {
          const m = measurements.find((x) => x.red === p.probe && x.black === p.ref);
          const on = m !== undefined && selected?.id === m.id && p.state === job.rigState.id;
          return (
            <button
              key={`${p.state}${p.probe}${p.ref}`}
              type="button"
              className={`proof${on ? ' on' : ''}${p.after && p.after.verdict !== 'ok' ? ' bad' : ''}`}
              onClick={() => m && take(m, p.state)}
            >
              <span className={`pd${p.label.includes('–') ? ' pair' : ''}`}>
                {p.label.includes('–') ? 'Δ' : p.label}
              </span>
              <span className="nm">
                <b>
                  {p.label}, {midSentence(p.name)}
                </b>
                <small>
                  {page.stateOf(p.state).label}, {waited(p.wait)} in it · {p.why}
                </small>
              </span>
              <span className="was">
                {p.before ? (
                  <>
                    <Sign verdict={p.before.verdict} size={13} onInk={on} /> was {showText(p.before.value, p.band.unit)}
                  </>
                ) : made === 'repair' ? (
                  'not taken before'
                ) : null}
              </span>
              <span className="bw">
                <BandMark band={p.band} value={p.after?.value} />
                <span className="bd2">{showBand(p.band.lo, p.band.hi, p.band.unit)}</span>
              </span>
              <span className="v">
                {p.after ? (
                  <>
                    {show(p.after.value, p.band.unit).text}
                    <small>{show(p.after.value, p.band.unit).unit}</small>{' '}
                    <Sign verdict={p.after.verdict} size={15} onInk={on} />
                  </>
                ) : (
                  '–'
                )}
              </span>
            </button>
          );
        })}
        <CheckList locked={signed} />
        <SignBox proven={all} />
        <p className="quiet pad">
          Local codes, the vehicle maker’s guide and licensed practice come first: Surrik advises, the technician
          decides and signs.
        </p>
      </div>
    </div>
  );
}
