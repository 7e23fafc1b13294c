'use client';
/** Suspects with their odds, why, the next best test, the verdict and the repair. */
import { useState } from 'react';
import { asDesigned } from '../../core/diagnose/asDesigned';
import { NOTHING_WRONG } from '../../core/diagnose/catalogue/nothingWrong';
import type { Clue, Suspect } from '../../core/diagnose/diagnose';
import { operatingState } from '../../core/operate/states';
import { judge } from '../../core/probe/judge';
import { showBand, showPercent, showText } from '../../core/units/format';
import { Sign } from '../strip/glyphs';
import { useBench, type Bench } from './bench';
import { SeenAndHeard } from './SeenAndHeard';
import { Sheet } from './Sheet';

function Pull({ clue }: { clue: Clue }) {
  const w = clue.strength === 'strong' ? 50 : clue.strength === 'some' ? 34 : 18;
  const m = 52;
  const toward = clue.logOdds > 0;
  return (
    <span className={`pull${toward ? '' : ' clears'}`}>
      <svg width={104} height={20} viewBox="0 0 104 20" aria-hidden="true">
        <path d={`M${m} 0V20`} className="axis" />
        <path d={toward ? `M${m} 4.5H${m + w - 6}L${m + w} 10L${m + w - 6} 15.5H${m}Z` : `M${m} 4.5H${m - w + 6}L${m - w} 10L${m - w + 6} 15.5H${m}Z`} className={toward ? 'arrow' : 'arrow hollow'} />
      </svg>
      {clue.strength}
    </span>
  );
}

function ClueRow({ clue, bench }: { clue: Clue; bench: Bench }) {
  if (clue.answer !== undefined)
    return (
      <div className="ev">
        <span className="p">{clue.answer ? 'Yes' : 'No'}</span>
        <span className="tx">{clue.label}</span>
        <Pull clue={clue} />
      </div>
    );
  const reading = bench.job.readings.find((r) => r.id === clue.reading);
  if (!reading || reading.value === undefined) return null;
  const m = bench.measurements.find((x) => x.red === reading.probe && x.black === reading.ref);
  const band = m && bench.band(reading.state, m.id);
  return (
    <div className="ev">
      <span className="p">{clue.label}</span>
      <span className="tx">
        {band && <Sign verdict={judge(reading.value, band)} size={12} />} {showText(reading.value, reading.unit)}, {operatingState(reading.state).label.toLowerCase()}
        {band && <span className="quiet"> · healthy {showBand(band.lo, band.hi, band.unit)}</span>}
      </span>
      <Pull clue={clue} />
    </div>
  );
}

function SuspectRow({ suspect, rank, on, pick }: { suspect: Suspect; rank: number; on: boolean; pick(): void }) {
  const percent = showPercent(suspect.probability);
  return (
    <button type="button" className={`sus${on ? ' on' : ''}`} onClick={pick} aria-pressed={on}>
      <span className="r">{rank}</span>
      <span>
        <span className="nm">{suspect.name}</span>
        <span className="bar" aria-hidden="true">
          <i style={{ width: `${Math.min(99, suspect.probability * 100)}%` }} />
          <u style={{ left: `${suspect.prior * 100}%` }} />
        </span>
      </span>
      <span className="pc">
        {percent} <small>%</small>
      </span>
    </button>
  );
}

const SHOWN = 5;

export function FaultStation() {
  const bench = useBench();
  const { job, diagnosis, diagnosing, next } = bench;
  const [picked, pick] = useState<string>();
  const [working, setWorking] = useState(false);
  const verdict = job.verdicts.findLast((v) => !v.withdrawn);
  const repair = job.repairs.findLast((r) => !r.withdrawn);
  if (repair && verdict) return <Repaired bench={bench} verdict={verdict} repair={repair} />;
  if (!diagnosis)
    return (
      <div className="empty">
        <span className="loading loading-dots" aria-hidden="true" />
        <p>Working out what a rig like this could have.</p>
      </div>
    );
  const shown = diagnosis.suspects.slice(0, SHOWN);
  const rest = diagnosis.suspects.slice(SHOWN);
  const chosen = diagnosis.suspects.find((s) => s.fault === picked) ?? diagnosis.suspects[0]!;
  const clues = [...chosen.for, ...chosen.against].sort((a, b) => Math.abs(b.logOdds) - Math.abs(a.logOdds));
  return (
    <div className="fault">
      <section className="suspects" aria-label="Suspects">
        <div className="hdln bar-head">
          <b>Suspects</b>
          <span>
            <i className="was" aria-hidden="true" /> before any reading
          </span>
        </div>
        {shown.map((s, i) => (
          <SuspectRow key={s.fault} suspect={s} rank={i + 1} on={s.fault === chosen.fault} pick={() => pick(s.fault)} />
        ))}
        <p className="rest">
          <span>{rest.length} more, the likeliest of them {showPercent(rest[0]?.probability ?? 0)} %</span>
          <b>{showPercent(rest.reduce((sum, s) => sum + s.probability, 0))} %</b>
        </p>
        <SeenAndHeard />
      </section>
      <section className="why" aria-label={`Why ${chosen.name}`} aria-busy={diagnosing}>
        <div className="hdln">
          <b>{chosen.name}</b>
          <button type="button" className="inline" onClick={() => setWorking(true)}>
            Show the working
          </button>
        </div>
        <p className="shows">
          It shows when {chosen.shows}.{chosen.confirm && ` Confirm it by: ${chosen.confirm}.`}
        </p>
        {chosen.minutes && chosen.parts && (
          <p className="shows">
            <b>{chosen.repair}</b>: {chosen.minutes[0]} to {chosen.minutes[1]} min, parts {chosen.parts[1] === 0 ? 'none' : `$${chosen.parts[0]} to $${chosen.parts[1]}`} (assumed).
          </p>
        )}
        {chosen.fault === NOTHING_WRONG.id && <Explanations bench={bench} />}
        <div className="clues">
          {clues.length === 0 && <p className="quiet">No reading speaks for or against it yet.</p>}
          {clues.slice(0, 5).map((c) => (
            <ClueRow key={c.reading} clue={c} bench={bench} />
          ))}
          {clues.length > 5 && <p className="quiet">and {clues.length - 5} weaker</p>}
        </div>
        {diagnosis.contradiction.map((c) => (
          <p key={c.reading} className="alert alert-warning alert-outline" role="status">
            {labelOf(bench, c.reading)} does not fit the rest: {c.why} Take it again.
          </p>
        ))}
        {verdict ? (
          <RepairForm bench={bench} verdict={verdict} />
        ) : (
          <NextTestBox bench={bench} declare={chosen} settled={next.kind === 'declare'} />
        )}
      </section>
      {working && <ProbabilityWorking bench={bench} suspect={chosen} onClose={() => setWorking(false)} />}
    </div>
  );
}

/** Nothing is wrong: what to tell the customer instead. */
function Explanations({ bench }: { bench: Bench }) {
  const list = asDesigned(bench.rig, bench.job.complaint.codes);
  if (list.length === 0) return null;
  return (
    <div className="designed">
      <div className="lab">It works like that. For the customer:</div>
      <ul>
        {list.map((row) => (
          <li key={row.id}>{row.says}</li>
        ))}
      </ul>
    </div>
  );
}

function labelOf(bench: Bench, readingId: string): string {
  const r = bench.job.readings.find((x) => x.id === readingId);
  if (!r) return 'A reading';
  const label = bench.rig.probes.find((p) => p.key === r.probe)?.label ?? r.probe;
  return `${label} at ${operatingState(r.state).label.toLowerCase()}`;
}

function NextTestBox({ bench, declare, settled }: { bench: Bench; declare: Suspect; settled: boolean }) {
  const { diagnosis, send, job } = bench;
  const test = diagnosis!.next[0];
  const stop = diagnosis!.stop;
  const sayVerdict = () =>
    send('verdict.declare', {
      id: crypto.randomUUID(),
      fault: declare.fault,
      name: declare.name,
      repair: declare.repair,
      probability: Math.min(0.99, declare.probability),
      settled,
    });
  return (
    <>
      {test && !stop.reached ? (
        <div className="test">
          <div className="tw">
            <div className="lab">{test.retake ? 'Take again before the verdict' : 'Next best test'}</div>
            <div className="big">
              {test.label}, {test.name.toLowerCase()}
            </div>
            <div className="lab">{operatingState(test.state).label}{test.state === job.rigState.id ? ', as it is now' : ''}</div>
            <div className="outcomes">
              {test.outcomes.map((o) => (
                <div key={o.names.join()}>
                  <b>{showBand(o.lo, o.hi, test.kind === 'clamp' ? 'A' : 'V')}</b>
                  <span>
                    leaves {listed(o.names)} ({showPercent(o.probability)} %)
                  </span>
                </div>
              ))}
            </div>
          </div>
          <div className="tm2">
            <div className="mins">
              {test.minutes.toFixed(test.minutes < 9.5 ? 1 : 0)} <small>min</small>
            </div>
            <Dots of={test.leaves.of} about={test.leaves.about} />
            <div>about {test.leaves.about === 1 ? '1 suspect' : `${test.leaves.about} suspects`} left of {test.leaves.of}</div>
          </div>
        </div>
      ) : (
        <p className="stopwords">{stop.why}</p>
      )}
      {test && !stop.reached && diagnosis!.next.slice(1).map((t) => (
        <button key={`${t.state}${t.test}`} type="button" className="alt" onClick={() => bench.select(bench.measurements.find((m) => m.id === t.test)!)}>
          <span>
            {t.label}, {t.name.toLowerCase()}, {operatingState(t.state).label.toLowerCase()}
          </span>
          <b>
            {t.minutes.toFixed(1)} min, about {t.leaves.about} left
          </b>
        </button>
      ))}
      <div className="declare">
        <button type="button" className="bx" onClick={sayVerdict}>
          Declare: {declare.name} ({showPercent(declare.probability)} %)
        </button>
        {!settled && <span className="quiet">You decide and sign: questions are still open.</span>}
      </div>
    </>
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

function RepairForm({ bench, verdict }: { bench: Bench; verdict: Bench['job']['verdicts'][number] }) {
  const { send, go } = bench;
  const [did, setDid] = useState(`${verdict.repair}.`);
  const record = () => {
    send('repair.record', { id: crypto.randomUUID(), verdict: verdict.id, revision: crypto.randomUUID(), did: did.trim() });
    go('prove');
  };
  return (
    <form className="repair" onSubmit={(e) => (e.preventDefault(), did.trim() !== '' && record())}>
      <div className="lab">
        Declared by {verdict.by}, {showPercent(verdict.probability)} % {verdict.settled ? 'and settled' : 'with questions open'}
      </div>
      <div className="big">{verdict.name}</div>
      <label className="field">
        <span>What was done (part fitted, torque, marks)</span>
        <textarea id="repair-did" className="textarea" rows={3} maxLength={400} value={did} onChange={(e) => setDid(e.target.value)} />
      </label>
      <div className="row">
        <button type="button" className="bx" onClick={() => send('verdict.withdraw', { id: verdict.id })}>
          Take the verdict back
        </button>
        <button type="submit" className="bx ink" disabled={did.trim() === ''}>
          Repair done: prove it
        </button>
      </div>
      <p className="quiet">Readings taken so far are kept, but are no evidence about the repaired rig.</p>
    </form>
  );
}

function Repaired({ bench, verdict, repair }: { bench: Bench; verdict: Bench['job']['verdicts'][number]; repair: Bench['job']['repairs'][number] }) {
  const fresh = bench.readings.length === 0;
  return (
    <div className="told">
      <div className="lab">Verdict, {verdict.by}</div>
      <div className="big">{verdict.name}</div>
      <p>
        {showPercent(verdict.probability)} % when it was declared{verdict.settled ? ', settled' : ', with questions open'}.
      </p>
      <div className="lab">Repair, {repair.by}</div>
      <p>{repair.did}</p>
      <div className="row">
        <button type="button" className="bx" disabled={!fresh} onClick={() => bench.send('repair.withdraw', { id: repair.id })}>
          Take the repair back
        </button>
        <button type="button" className="bx ink" onClick={() => bench.go('prove')}>
          To the proof
        </button>
      </div>
      {!fresh && <p className="quiet">Readings were taken since: they are about the repaired rig, so the repair stands.</p>}
    </div>
  );
}

function ProbabilityWorking({ bench, suspect, onClose }: { bench: Bench; suspect: Suspect; onClose(): void }) {
  const clues = [...suspect.for, ...suspect.against].sort((a, b) => Math.abs(b.logOdds) - Math.abs(a.logOdds));
  const odds = (p: number) => (p >= 0.5 ? `${(p / (1 - p)).toFixed(1)} to 1 for` : `${((1 - p) / Math.max(p, 1e-6)).toFixed(1)} to 1 against`);
  return (
    <Sheet title={`How ${showPercent(suspect.probability)} % came about`} onClose={onClose}>
      <p className="lead-in">
        Odds after = odds before × what the readings say. What each reading adds is the change in the odds when it is left out and everything else is kept.
      </p>
      <table className="table work">
        <thead>
          <tr>
            <th>Step</th>
            <th>Figure</th>
            <th>From</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>Before any reading</td>
            <td>{odds(suspect.prior)}</td>
            <td>how common it is and what the complaint says; assumed</td>
          </tr>
          {clues.map((c) => {
            const r = bench.job.readings.find((x) => x.id === c.reading);
            return (
              <tr key={c.reading}>
                <td>
                  {c.label}
                  {c.state !== undefined && `, ${operatingState(c.state).label.toLowerCase()}`}
                  {c.answer !== undefined && `: ${c.answer ? 'yes' : 'no'}`}
                  {r?.value !== undefined && `: ${showText(r.value, r.unit)}`}
                </td>
                <td>{c.logOdds > 0 ? `${Math.min(999, Math.exp(c.logOdds)).toFixed(1)} times likelier` : `${Math.min(999, Math.exp(-c.logOdds)).toFixed(1)} times less likely`}</td>
                <td>{c.answer === undefined ? 'measured' : 'seen; how much it tells is assumed'}</td>
              </tr>
            );
          })}
          <tr>
            <td>Now</td>
            <td>{odds(Math.min(0.99, suspect.probability))}</td>
            <td>all readings together</td>
          </tr>
        </tbody>
      </table>
      <p className="quiet">
        Belief is a mixture of Gaussians, one per fault and severity, over every uncertain number of the rig. 3 % of readings are taken to be slips. Repair: {suspect.repair.toLowerCase()}.
      </p>
    </Sheet>
  );
}
