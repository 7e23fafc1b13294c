'use client';
/** "Changed the plan because…": what and why, then what the rules, the proof and the approved sum say to it. */
import { useState } from 'react';
import { estimate } from '../../core/price/estimate';
import { standingApproval, standingChoice, standingVerdict, type Revision } from '../../core/job/job';
import type { BuildPlan } from '../../core/plan/build/build';
import type { Proof } from '../../core/prove/proofs';
import { lengthShown, lengthStored } from '../../core/units/preferences';
import { showBand } from '../../core/units/format';
import { showMoney } from '../../core/units/money';
import { gaugeShown, gaugesOf, type Gauge } from '../../core/units/wire';
import { useJobFile, useAnswers, usePlace, useEntries } from '../shell/jobPage';
import { Sheet } from '../Dialog';
import { readFigure } from '../../core/units/typedFigure';
import { useDraft } from '../draft';

interface Consequences {
  findings: string[];
  gone: string[];
  bands: string[];
}

const key = (p: Proof): string => `${p.state} ${p.probe} ${p.ref ?? ''}`;

export function PlanChangePanel({ proposed, plan, onClose }: { proposed: Revision; plan: BuildPlan; onClose(): void }) {
  const file = useJobFile();
  const answers = useAnswers();
  const place = usePlace();
  const { settings, job, words } = file;
  const { send, actor } = useEntries();
  const { doc } = proposed;
  const [wire, setWire] = useState('');
  const [gauge, setGauge] = useState<Gauge>();
  const [length, setLength] = useState('');
  const [what, setWhat, forgetWhat] = useDraft(`${job.number}/plan-change/what`, '');
  const [reason, setReason, forgetReason] = useDraft(`${job.number}/plan-change/why`, '');
  const [after, setAfter] = useState<Consequences | 'working'>();
  const conductor = doc.conductors.find((c) => c.id === wire);
  const read = readFigure(length, settings.length);
  const metres = read.is === 'figure' ? lengthStored(read.value, settings.length) : undefined;
  const wrong = read.is === 'wrong' || (metres !== undefined && !(metres > 0 && metres <= 100));
  const set = conductor
    ? {
        ...(gauge && gauge !== conductor.gauge ? { gauge } : {}),
        ...(metres !== undefined && !wrong && Math.abs(metres - conductor.length) > 0.005 ? { length: metres } : {}),
      }
    : {};
  const shownGauge = (of: Gauge) => gaugeShown(of, settings.gauge);
  const shownLength = (metres: number) => lengthShown(metres, settings.length).toFixed(1);
  const told = conductor
    ? `${conductor.name}: ${[
        ...(set.gauge ? [`${shownGauge(conductor.gauge)} becomes ${shownGauge(set.gauge)}`] : []),
        ...(set.length === undefined
          ? []
          : [`${shownLength(conductor.length)} becomes ${shownLength(set.length)} ${settings.length}`]),
      ].join(', ')}`
    : what.trim();
  const valid = reason.trim().length >= 8 && !wrong && (conductor ? Object.keys(set).length > 0 : what.trim() !== '');
  const save = async () => {
    setAfter('working');
    const before = await Promise.all([
      answers.options.size({ jurisdiction: settings.jurisdiction }),
      answers.expect(doc),
    ]);
    if (conductor) {
      const was = {
        ...(set.gauge ? { gauge: conductor.gauge } : {}),
        ...(set.length !== undefined ? { length: conductor.length } : {}),
      };
      send('conductor.edit', { conductor: conductor.id, was, set, means: 'proposed', revision: proposed.id });
    }
    send('planChange.set', {
      set: {
        id: crypto.randomUUID(),
        reason: reason.trim(),
        what: told.slice(0, 400),
        at: new Date().toISOString(),
        by: actor,
      },
    });
    forgetWhat();
    forgetReason();
    if (!conductor) return onClose();
    const next = { ...doc, conductors: doc.conductors.map((c) => (c.id === conductor.id ? { ...c, ...set } : c)) };
    const then = await Promise.all([
      answers.options.size({ jurisdiction: settings.jurisdiction }, next),
      answers.expect(next),
    ]);
    const say = (f: (typeof before)[0]['findings'][number]) => `${f.severity}: ${f.title}. ${f.says}`;
    const [was, is] = [new Set(before[0].findings.map(say)), new Set(then[0].findings.map(say))];
    const old = new Map(before[1].map((p) => [key(p), p]));
    setAfter({
      findings: [...is].filter((x) => !was.has(x)),
      gone: [...was].filter((x) => !is.has(x)),
      bands: then[1].flatMap((p) => {
        const o = old.get(key(p));
        const width = p.band.hi - p.band.lo;
        if (o && Math.abs(o.band.lo - p.band.lo) < 0.04 * width && Math.abs(o.band.hi - p.band.hi) < 0.04 * width)
          return [];
        return [
          `${p.label} at ${file.stateOf(p.state).label.toLowerCase()}: ` +
            `${o ? `${showBand(o.band.lo, o.band.hi, o.band.unit)} becomes ` : ''}${showBand(p.band.lo, p.band.hi, p.band.unit)}`,
        ];
      }),
    });
  };
  const choice = standingChoice(job);
  const verdict = standingVerdict(job);
  const approval = verdict && standingApproval(job, verdict.id);
  const most = choice ? estimate({ minutes: plan.minutes, parts: choice.parts }, settings).total[1] : 0;
  const beyond = approval !== undefined && approval.currency === settings.currency && most > approval.upTo;
  return (
    <Sheet title="Changed the plan because…" onClose={onClose} wide>
      {after === undefined ? (
        <form
          className="grid gap-2.5 text-plain"
          onSubmit={(e) => {
            e.preventDefault();
            if (valid) void save();
          }}
        >
          <label className="field">
            <span>What changes</span>
            <select
              className="select min-h-12"
              value={wire}
              onChange={(e) => (setWire(e.target.value), setGauge(undefined), setLength(''))}
            >
              <option value="">something else, in words</option>
              {doc.conductors.map((c) => (
                <option key={c.id} value={c.id}>
                  {words(c.name)}, {gaugeShown(c.gauge, settings.gauge)},{' '}
                  {lengthShown(c.length, settings.length).toFixed(1)} {settings.length}
                </option>
              ))}
            </select>
          </label>
          {conductor ? (
            <div className="grid grid-cols-2 gap-x-3 gap-y-2">
              <label className="field">
                <span>Gauge</span>
                <select
                  className="select min-h-12"
                  value={gauge ?? conductor.gauge}
                  onChange={(e) => setGauge(e.target.value as Gauge)}
                >
                  {gaugesOf(settings.gauge, conductor.gauge).map((g) => (
                    <option key={g} value={g}>
                      {gaugeShown(g, settings.gauge)}
                    </option>
                  ))}
                </select>
              </label>
              <label className="field">
                <span>Length, {settings.length}</span>
                <input
                  className="input"
                  inputMode="decimal"
                  value={length}
                  aria-invalid={wrong}
                  placeholder={lengthShown(conductor.length, settings.length).toFixed(1)}
                  onChange={(e) => setLength(e.target.value)}
                />
              </label>
            </div>
          ) : (
            <label className="field">
              <span>In words</span>
              <input
                className="input"
                maxLength={400}
                value={what}
                onChange={(e) => setWhat(e.target.value)}
                placeholder="Signal wire through the cabin instead of the engine bay"
              />
            </label>
          )}
          <label className="field">
            <span>Because</span>
            <input
              className="input"
              maxLength={400}
              value={reason}
              onChange={(e) => setReason(e.target.value)}
              placeholder="No ignition-switched fuse in the engine bay"
            />
          </label>
          <div className="row flex flex-wrap gap-2">
            <button type="submit" className="btn btn-neutral" disabled={!valid}>
              Change the plan
            </button>
            <button type="button" className="btn" onClick={onClose}>
              Leave it
            </button>
          </div>
          <p className="quiet">
            The proposal, its rules, cut list and proof follow. Parts of another kind are picked anew under Options, a
            fuse or threshold under Sizing.
          </p>
        </form>
      ) : after === 'working' ? (
        <p className="waiting py-2 text-note text-ink-2">Asking the rules and the proof …</p>
      ) : (
        <div className="grid gap-2.5 text-plain" role="status">
          <p>
            <b>{words(told)}.</b>
          </p>
          {after.findings.length === 0 ? (
            <p>The design rules say nothing new to it.</p>
          ) : (
            <Listed title="The rules now say" items={after.findings} />
          )}
          {after.gone.length > 0 && <Listed title="No longer said" items={after.gone} />}
          {after.bands.length === 0 ? (
            <p>No change to expected readings.</p>
          ) : (
            <Listed title="The proof now expects" items={after.bands} />
          )}
          {beyond && (
            <p className="alert alert-warning alert-outline">
              The plan may now come to {showMoney(most, settings.currency)}, beyond the{' '}
              {showMoney(approval.upTo, approval.currency)} that were approved: ask again before going on.
              <button
                type="button"
                className="btn"
                onClick={() => {
                  send('approval.withdraw', { id: approval.id });
                  send('job.set-status', { status: 'waiting-approval' });
                  place.go('fault');
                }}
              >
                Ask again
              </button>
            </p>
          )}
          <button type="button" className="btn btn-neutral" onClick={onClose}>
            Go on with it
          </button>
        </div>
      )}
    </Sheet>
  );
}

function Listed({ title, items }: { title: string; items: readonly string[] }) {
  const { words } = useJobFile();
  return (
    <div>
      <div className="lab">{title}</div>
      <ul className="grid gap-0.75 pl-5 list-disc">
        {items.map((x) => (
          <li key={x}>{words(x)}</li>
        ))}
      </ul>
    </div>
  );
}
