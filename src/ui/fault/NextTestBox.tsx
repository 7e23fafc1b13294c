'use client';
/** The next best test with what each outcome would leave, two others, one's own round, and declaring. */
import { clsx } from 'clsx';
import { TriangleAlert } from 'lucide-react';
import { NOT_ON_LIST } from '../../core/diagnose/catalogue/notOnList';
import type { NextTest, Suspect } from '../../core/diagnose/diagnose';
import { PROVE_THE_METER, techniqueFor } from '../../core/probe/technique';
import { midSentence, showBand, showPercent, showText } from '../../core/units/format';
import { useJobFile, useMeasuring, useAnswers, usePlace, useEntries } from '../shell/jobPage';
import { ChangesMind } from './ChangesMind';

const title = (t: NextTest) => (t.label === undefined ? t.name : `${t.label}, ${midSentence(t.name)}`);

export function NextTestBox({ declare, settled }: { declare: Suspect; settled: boolean }) {
  const file = useJobFile();
  const measuring = useMeasuring();
  const answers = useAnswers();
  const place = usePlace();
  const { job } = file;
  const { diagnosis, diagnosing, ownRound, setOwnRound } = answers;
  const [test, ...others] = diagnosis!.next;
  const stop = diagnosis!.stop;
  const open = (t: NextTest) => {
    if (t.probe === undefined) answers.openSeen(t.test);
    else {
      const m = measuring.measurements.find((x) => x.id === t.test);
      if (m) {
        measuring.select(m);
        place.go('readings');
      }
    }
  };
  return (
    <>
      {test && !stop.reached ? (
        <Best test={test} own={ownRound} />
      ) : (
        <p className="px-3 py-2.5 border-2 border-ink rounded text-plain leading-tight">{stop.why}</p>
      )}
      {test && !stop.reached && (
        <div className="others grid" role="group" aria-label="Or">
          {others.map((t) => (
            <button
              key={`${t.state}${t.test}`}
              type="button"
              className={clsx(
                'grid grid-cols-end items-center flex-none gap-x-2.5 gap-y-0',
                'min-h-11 border-t-1 border-rule',
                'text-left text-note',
              )}
              onClick={() => open(t)}
            >
              <span>
                <em className="font-semibold not-italic">Or:</em> {title(t)},{' '}
                {file.stateOf(t.state).label.toLowerCase()}
              </span>
              <b className="font-cond text-plain whitespace-nowrap">
                {t.minutes.toFixed(1)} min, about {t.leaves.about} left
              </b>
            </button>
          ))}
          <button
            type="button"
            className={clsx(
              'grid grid-cols-end items-center flex-none gap-x-2.5 gap-y-0',
              'min-h-11 border-t-1 border-rule',
              'text-left text-note',
              'aria-pressed:px-2 aria-pressed:bg-ink aria-pressed:text-paper',
            )}
            aria-pressed={ownRound}
            onClick={() => setOwnRound(!ownRound)}
          >
            <span>
              {ownRound ? 'On my own round: nothing is asked for, everything I take counts' : 'I’ll do my own round'}
            </span>
            <b className="font-cond text-plain whitespace-nowrap">{ownRound ? 'Ask me again' : 'Ask for nothing'}</b>
          </button>
        </div>
      )}
      <AddedProbes />
      {diagnosis!.changes && <ChangesMind changes={diagnosis!.changes} />}
      {declare.fault !== NOT_ON_LIST.id && (
        <div
          className={clsx(
            'declare',
            'sticky flex items-center gap-3 -bottom-2.5',
            'mt-auto pt-1.5 pb-2 border-t border-ink bg-card',
            'within-phone:static within-phone:flex-wrap',
          )}
        >
          <button
            type="button"
            className="btn"
            aria-disabled={diagnosing || undefined}
            onClick={() => !diagnosing && answers.declare(declare, settled)}
          >
            Declare: {declare.name} ({showPercent(declare.probability)} %)
          </button>
          {diagnosing ? (
            <span className="quiet flex-1 min-w-40">Taking in the last reading …</span>
          ) : (
            !settled && <span className="quiet flex-1 min-w-40">You decide and sign: questions are still open.</span>
          )}
        </div>
      )}
      {job.readings.length === 0 && <p className="quiet">{PROVE_THE_METER}</p>}
    </>
  );
}

function Best({ test, own }: { test: NextTest; own: boolean }) {
  const file = useJobFile();
  // In the present state the slip says how it is taken.
  const tips =
    test.probe === undefined || test.state === file.job.rigState.id
      ? []
      : techniqueFor(
          file.described,
          { kind: test.kind as 'volts', red: test.probe, ...(test.ref === undefined ? {} : { black: test.ref }) },
          test.state,
        );
  return (
    <div className="test grid flex-none mt-1 border-2 border-ink rounded within-phone:grid-cols-1">
      <div className="tw grid gap-0.75 px-2.75 py-2.25">
        <div className="lab">
          {own ? 'I would ask for' : test.retake ? 'Take again before the verdict' : 'Next best test'}
        </div>
        <div className="big font-cond font-bold text-figure leading-close">{title(test)}</div>
        <div className="lab">
          {file.stateOf(test.state).label}
          {test.state === file.job.rigState.id ? ', as it is now' : ''}
        </div>
        <div className="outcomes grid gap-0.75 mt-1 text-note">
          {test.outcomes.map((o) => (
            <div className="grid items-baseline gap-2 leading-tight" key={o.names.join() + (o.answer ?? '')}>
              <b className="font-cond text-lead whitespace-nowrap">
                {o.answer ?? showBand(o.lo, o.hi, test.kind === 'clamp' ? 'A' : 'V')}
              </b>
              <span>
                leaves {listed(o.names)}
                {o.others && ' or others'} ({showPercent(o.probability)} %)
              </span>
            </div>
          ))}
        </div>
        {tips.map((t) => (
          <p key={t} className="mt-0.75 pl-2 border-l-3 border-rule text-fine text-ink-2 leading-tight">
            {file.words(t)}
          </p>
        ))}
        {test.caution && (
          <p className="care">
            <TriangleAlert size={15} aria-hidden="true" /> {test.caution}
          </p>
        )}
      </div>
      <div
        className={clsx(
          'grid content-between',
          'px-2.5 py-2.25 border-l-2 border-ink bg-paper',
          'text-note leading-close',
          'within-phone:flex within-phone:items-center within-phone:gap-3',
          'within-phone:border-l-0 within-phone:border-t-2 within-phone:border-ink',
        )}
      >
        <div className="font-cond font-bold text-display leading-none">
          {test.minutes.toFixed(test.minutes < 9.5 ? 1 : 0)} <small className="text-large">min</small>
        </div>
        <Dots of={test.leaves.of} about={test.leaves.about} />
        <div>
          about {test.leaves.about === 1 ? '1 suspect' : `${test.leaves.about} suspects`} left of {test.leaves.of}
        </div>
      </div>
    </div>
  );
}

/** Where no probe tells the leaders apart: points that would. */
function AddedProbes() {
  const file = useJobFile();
  const answers = useAnswers();
  const entries = useEntries();
  const list = answers.diagnosis!.added;
  if (list.length === 0) return null;
  return (
    <div className="others" role="group" aria-label="Probes that would tell them apart">
      {list.map((p) => (
        <button key={p.key} type="button" onClick={() => entries.send('probe.add', { key: p.key, name: p.name })}>
          <span>
            <em>Add a probe:</em> {p.name}, {file.stateOf(p.state).label.toLowerCase()}
          </span>
          <b>{p.reads.map((r) => `${showText(r.value, p.unit)} if ${r.name.toLowerCase()}`).join('; ')}</b>
        </button>
      ))}
    </div>
  );
}

/** Up to three names in a sentence. */
function listed(names: readonly string[]): string {
  const small = names.map((n) => n.charAt(0).toLowerCase() + n.slice(1));
  if (small.length > 3) return `${small.slice(0, 2).join(', ')} and ${small.length - 2} more`;
  return small.length > 1 ? `${small.slice(0, -1).join(', ')} or ${small.at(-1)}` : small[0]!;
}

function Dots({ of, about }: { of: number; about: number }) {
  const shown = Math.min(8, of);
  return (
    <svg width={shown * 15 + 2} height={16} viewBox={`0 0 ${shown * 15 + 2} 16`} aria-hidden="true" className="dots">
      {Array.from({ length: shown }, (_, i) => (
        <circle
          key={i}
          cx={i * 15 + 8}
          cy={8}
          r={5.5}
          className={clsx('stroke-current', 'is-full:fill-current is-open:fill-none', i < about ? 'full' : 'open')}
        />
      ))}
    </svg>
  );
}
