'use client';
/** The same probes again, against the healthy bands: before, after, right or not. */
import { clsx } from 'clsx';
import { NOTHING_WRONG } from '../../core/diagnose/catalogue/nothingWrong';
import { madeBy, provedAgainst, standingChecks, standingSignOff } from '../../core/job/job';
import { midSentence, show, showBand, showText } from '../../core/units/format';
import { Sign } from '../strip/glyphs';
import { BandMark } from '../readings/BandMark';
import { useJobFile, useMeasuring, useAnswers, usePlace } from '../shell/jobPage';
import { PHONE } from '../useMedia';
import type { Measurement } from '../../core/probe/measurement';
import { CheckList } from './CheckList';
import { SignBox } from './SignBox';
import { WhatWillBeProved } from './WhatWillBeProved';

/** How long a state has to last before a reading in it counts. */
const waited = (seconds: number): string => (seconds < 90 ? `${seconds} s` : `${Math.round(seconds / 60)} min`);

export function ProveStation() {
  const file = useJobFile();
  const measuring = useMeasuring();
  const answers = useAnswers();
  const place = usePlace();
  const { job } = file;
  const { measurements, selected, select } = measuring;
  const { proofs } = answers;
  const made = madeBy(job);
  if (!made)
    return (
      <div className="mx-auto grid max-w-3xl content-start justify-items-start gap-3 overflow-y-auto p-6 text-base leading-snug">
        <p>
          Proof comes after the repair or the build: the probes that were out of their band, and the link’s own
          function, are measured again here against what a healthy rig of this kind reads.
        </p>
        <button type="button" className="btn" onClick={() => place.go('fault')}>
          To the fault
        </button>
        <WhatWillBeProved />
      </div>
    );
  const right = proofs?.filter((p) => p.after?.verdict === 'ok').length ?? 0;
  const signed = standingSignOff(job) !== undefined;
  const results = standingChecks(job, file.epoch);
  const checked =
    answers.checks?.every((c) => (c.required ? results.has(c.id) : true) && results.get(c.id)?.result !== 'fail') ??
    false;
  /** Puts a proof in hand; on a phone the keypad stands under Readings. */
  const take = (m: Measurement, state: string) => {
    select(m);
    if (window.matchMedia(PHONE).matches) place.go('readings');
    if (state !== job.rigState.id) measuring.openStates(state);
  };
  const all = proofs !== undefined && proofs.length > 0 && right === proofs.length && checked;
  return (
    <div className="prove flex flex-col min-h-0 bg-card within-phone:block within-phone:h-auto">
      <div className="hdln flex-none h-9.5 px-3 border-b-2 border-ink">
        <b className="text-head leading-close">
          {provedAgainst(job).fault === NOTHING_WRONG.id ? 'Proof that it works' : `Proof after the ${made}`}
        </b>
        <span className="font-medium text-note text-ink-2">
          {right} of {proofs?.length ?? 0} in band
        </span>
      </div>
      <div className="min-h-0 overflow-x-hidden overflow-y-auto">
        {proofs?.map((p) => {
          const m = measurements.find((x) => x.red === p.probe && x.black === p.ref);
          const on = m !== undefined && selected?.id === m.id && p.state === job.rigState.id;
          return (
            <button
              key={`${p.state}${p.probe}${p.ref}`}
              type="button"
              className={clsx(
                'grid items-center gap-2',
                'w-full min-h-14 pr-2.5 pl-2 py-1 border-b-1 border-rule',
                'text-left text-fine leading-close',
                'is-bad:bg-fail-tint is-on:bg-ink is-on:text-paper',
                `proof${on ? ' on' : ''}${p.after && p.after.verdict !== 'ok' ? ' bad' : ''}`,
              )}
              onClick={() => m && take(m, p.state)}
            >
              <span
                className={clsx(
                  'inline-grid place-items-center flex-none',
                  'w-8.5 h-8.5 border-2 border-ink rounded-full bg-card',
                  'font-cond font-bold text-plain text-ink leading-none',
                  'is-pair:rounded within-on:border-paper within-on:bg-paper',
                  `pd${p.label.includes('–') ? ' pair' : ''}`,
                )}
              >
                {p.label.includes('–') ? 'Δ' : p.label}
              </span>
              <span>
                <b className="block font-cond font-semibold text-lead">
                  {p.label}, {midSentence(p.name)}
                </b>
                <small className="text-fine text-ink-2 within-on:text-paper">
                  {file.stateOf(p.state).label}, {waited(p.wait)} in it · {p.why}
                </small>
              </span>
              <span
                className={clsx(
                  'was',
                  'block',
                  'w-auto h-auto',
                  'font-cond font-medium text-note text-ink-2 align-middle',
                  'within-on:text-paper within-phone:col-start-2 within-phone:justify-items-start',
                )}
              >
                {p.before ? (
                  <>
                    <Sign verdict={p.before.verdict} size={13} onInk={on} /> was {showText(p.before.value, p.band.unit)}
                  </>
                ) : made === 'repair' ? (
                  'not taken before'
                ) : null}
              </span>
              <span className="grid justify-items-end gap-0.5 within-phone:col-start-2 within-phone:justify-items-start">
                <BandMark band={p.band} value={p.after?.value} />
                <span
                  className={clsx(
                    'font-medium text-note text-ink-2 leading-none whitespace-nowrap tracking-tight',
                    'within-on:text-paper',
                  )}
                >
                  {showBand(p.band.lo, p.band.hi, p.band.unit)}
                </span>
              </span>
              <span
                className={clsx(
                  'v',
                  'justify-end gap-1',
                  'font-cond text-figure',
                  'within-bad:text-fail within-on:text-paper within-phone:row-start-1 within-phone:col-start-3',
                )}
              >
                {p.after ? (
                  <>
                    {show(p.after.value, p.band.unit).text}
                    <small className="font-medium text-note">{show(p.after.value, p.band.unit).unit}</small>{' '}
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
        <p className="quiet px-3 py-2.5">
          Local codes, the vehicle maker’s guide and licensed practice come first: Surrik advises, the technician
          decides and signs.
        </p>
      </div>
    </div>
  );
}
