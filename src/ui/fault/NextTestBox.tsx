'use client';
/** The next best test with what each outcome would leave, two others, one's own round, and declaring. */
import { TriangleAlert } from 'lucide-react';
import { NOT_ON_LIST } from '../../core/diagnose/catalogue/notOnList';
import type { NextTest, Suspect } from '../../core/diagnose/diagnose';
import { PROVE_THE_METER, techniqueFor } from '../../core/probe/technique';
import { midSentence, showBand, showPercent, showText } from '../../core/units/format';
import type { JobPage } from '../shell/jobPage';
import { ChangesMind } from './ChangesMind';

const title = (t: NextTest) => (t.label === undefined ? t.name : `${t.label}, ${midSentence(t.name)}`);

export function NextTestBox({ page, declare, settled }: { page: JobPage; declare: Suspect; settled: boolean }) {
  const { diagnosis, job, ownRound, setOwnRound } = page;
  const [test, ...others] = diagnosis!.next;
  const stop = diagnosis!.stop;
  const open = (t: NextTest) => {
    if (t.probe === undefined) page.openSeen(t.test);
    else {
      const m = page.measurements.find((x) => x.id === t.test);
      if (m) {
        page.select(m);
        page.go('readings');
      }
    }
  };
  return (
    <>
      {test && !stop.reached ? (
        <Best page={page} test={test} own={ownRound} />
      ) : (
        <p className="stopwords">{stop.why}</p>
      )}
      {test && !stop.reached && (
        <div className="others" role="group" aria-label="Or">
          {others.map((t) => (
            <button key={`${t.state}${t.test}`} type="button" className="alt" onClick={() => open(t)}>
              <span>
                <em>Or:</em> {title(t)}, {page.stateOf(t.state).label.toLowerCase()}
              </span>
              <b>
                {t.minutes.toFixed(1)} min, about {t.leaves.about} left
              </b>
            </button>
          ))}
          <button type="button" className="alt" aria-pressed={ownRound} onClick={() => setOwnRound(!ownRound)}>
            <span>
              {ownRound ? 'On my own round: nothing is asked for, everything I take counts' : 'I’ll do my own round'}
            </span>
            <b>{ownRound ? 'Ask me again' : 'Ask for nothing'}</b>
          </button>
        </div>
      )}
      <AddedProbes page={page} />
      {diagnosis!.changes && <ChangesMind changes={diagnosis!.changes} />}
      {declare.fault !== NOT_ON_LIST.id && (
        <div className="declare">
          <button type="button" className="bx" onClick={() => page.declare(declare, settled)}>
            Declare: {declare.name} ({showPercent(declare.probability)} %)
          </button>
          {!settled && <span className="quiet">You decide and sign: questions are still open.</span>}
        </div>
      )}
      {job.readings.length === 0 && <p className="quiet">{PROVE_THE_METER}</p>}
    </>
  );
}

function Best({ page, test, own }: { page: JobPage; test: NextTest; own: boolean }) {
  // In the present state the slip says how it is taken.
  const tips =
    test.probe === undefined || test.state === page.job.rigState.id
      ? []
      : techniqueFor(
          page.described,
          { kind: test.kind as 'volts', red: test.probe, ...(test.ref === undefined ? {} : { black: test.ref }) },
          test.state,
        );
  return (
    <div className="test">
      <div className="tw">
        <div className="lab">
          {own ? 'I would ask for' : test.retake ? 'Take again before the verdict' : 'Next best test'}
        </div>
        <div className="big">{title(test)}</div>
        <div className="lab">
          {page.stateOf(test.state).label}
          {test.state === page.job.rigState.id ? ', as it is now' : ''}
        </div>
        <div className="outcomes">
          {test.outcomes.map((o) => (
            <div key={o.names.join() + (o.answer ?? '')}>
              <b>{o.answer ?? showBand(o.lo, o.hi, test.kind === 'clamp' ? 'A' : 'V')}</b>
              <span>
                leaves {listed(o.names)} ({showPercent(o.probability)} %)
              </span>
            </div>
          ))}
        </div>
        {tips.map((t) => (
          <p key={t} className="tip">
            {page.words(t)}
          </p>
        ))}
        {test.caution && (
          <p className="care">
            <TriangleAlert size={15} aria-hidden="true" /> {test.caution}
          </p>
        )}
      </div>
      <div className="tm2">
        <div className="mins">
          {test.minutes.toFixed(test.minutes < 9.5 ? 1 : 0)} <small>min</small>
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
function AddedProbes({ page }: { page: JobPage }) {
  const list = page.diagnosis!.added;
  if (list.length === 0) return null;
  return (
    <div className="others" role="group" aria-label="Probes that would tell them apart">
      {list.map((p) => (
        <button
          key={p.key}
          type="button"
          className="alt"
          onClick={() => page.send('probe.add', { key: p.key, name: p.name })}
        >
          <span>
            <em>Add a probe:</em> {p.name}, {page.stateOf(p.state).label.toLowerCase()}
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
        <circle key={i} cx={i * 15 + 8} cy={8} r={5.5} className={i < about ? 'full' : 'open'} />
      ))}
    </svg>
  );
}
