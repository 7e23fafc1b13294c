'use client';
/** The slip of the Sizing station: the worst thing that one press mends, how the design stands, cautions. */
import { ArrowRight, CircleCheck, TriangleAlert } from 'lucide-react';
import type { Autofix } from '../../core/rules/rule';
import type { Sized } from '../../core/rules/sized';
import type { TowReport } from '../../core/rules/tow/report';
import { useJobPage } from '../shell/jobPage';
import { Cautions } from '../shell/NextSlip';

const CAUTIONS = [
  'Engine off and negative off before any heavy cable is touched.',
  'Never bridge two studs with a tool; cover live studs.',
  'Local codes, upfit limit and licensed practice come first.',
] as const;
const TOW_CAUTIONS = [
  'Chock the trailer before unplugging. Never unplug under load: shut the engine off first.',
  'No lamp tester on sense or data wires.',
  'Prove brakes, lights and breakaway after any work at the connector.',
] as const;
const SHOWN = 5;

interface SizingSlipProps {
  sized: Sized | undefined;
  mend(m: Autofix): void;
  show(view: 'rules'): void;
  /** While the tow plug is looked at. */
  tow?: TowReport;
  apply?(): void;
  applies?: string;
}

export function SizingSlip({ sized, mend, show, tow, apply, applies }: SizingSlipProps) {
  const { words, go } = useJobPage();
  if (tow) {
    const { before, changes, left } = tow.audit;
    return (
      <aside className="slip" aria-label="Bench slip">
        <h2>Bench slip</h2>
        {tow.revision && changes.length > 0 && left.length === 0 ? (
          <button type="button" className="bx next go" onClick={apply}>
            <span>
              {applies}
              <small>{words(changes[0]!.says)}</small>
            </span>
            <ArrowRight size={22} aria-hidden="true" />
          </button>
        ) : (
          <p className="lead-in">
            {before.troubles.length === 0
              ? words('Coupled, nothing goes wrong in any state.')
              : left.length > 0
                ? 'What is left wants a judgement.'
                : `${changes.length === 1 ? 'One change puts' : `${changes.length} changes put`} it right: see the list.`}
          </p>
        )}
        <h3>Coupled as it is</h3>
        <div className="slip-scroll" tabIndex={0} role="region" aria-label="Coupled as it is">
          <ul className="szsaws">
            {before.troubles.map((t, i) => (
              <li key={`${t.id}${i}`} className="szsaw">
                <TriangleAlert size={17} aria-hidden="true" />
                <span>{words(t.title)}</span>
              </li>
            ))}
            {before.troubles.length === 0 && (
              <li className="szsaw">
                <CircleCheck size={17} aria-hidden="true" />
                <span>Parked, stopped, driving, braking.</span>
              </li>
            )}
          </ul>
        </div>
        <Cautions list={TOW_CAUTIONS} />
      </aside>
    );
  }
  if (!sized)
    return (
      <aside className="slip" aria-label="Bench slip">
        <h2>Bench slip</h2>
        <p className="waiting">Working out …</p>
      </aside>
    );
  const next = sized.revision ? sized.findings.find((f) => f.mend && !f.waiver && f.severity !== 'tidy') : undefined;
  const grave = sized.findings.filter((f) => f.severity !== 'tidy' && !f.waiver);
  // The same finding in several places is one line with their number.
  const titles = [...new Set(grave.map((f) => f.title))].map(
    (title) => [title, grave.filter((f) => f.title === title).length] as const,
  );
  return (
    <aside className="slip" aria-label="Bench slip">
      <h2>Bench slip</h2>
      {next ? (
        <button type="button" className="bx next go" onClick={() => mend(next.mend!)}>
          <span>
            {words(next.fix.replace(/\.$/, ''))}
            <small>{words(next.says.split(':')[0]!)}</small>
          </span>
          <ArrowRight size={22} aria-hidden="true" />
        </button>
      ) : !sized.revision ? (
        <>
          <p className="lead-in">
            No link is picked yet: this is the rig as it is. Pick one under Options to alter its copper here.
          </p>
          <button type="button" className="bx" onClick={() => go('options')}>
            To the options
          </button>
        </>
      ) : (
        <>
          <p className="lead-in">
            {grave.length === 0
              ? 'Nothing left to mend by a button: the design stands.'
              : 'What is left wants a look or a judgement: see the rules.'}
          </p>
          {grave.length === 0 && (
            <button type="button" className="bx next go" onClick={() => go('build')}>
              <span>Plan the build</span>
              <ArrowRight size={22} aria-hidden="true" />
            </button>
          )}
        </>
      )}
      <h3>What the rules see</h3>
      <div className="slip-scroll" tabIndex={0} role="region" aria-label="What the rules see">
        <ul className="szsaws">
          {titles.slice(0, SHOWN).map(([title, times]) => (
            <li key={title} className="szsaw">
              <TriangleAlert size={17} aria-hidden="true" />
              <span>
                {words(title)}
                {times > 1 && ` (${times})`}
              </span>
            </li>
          ))}
          {grave.length === 0 && (
            <li className="szsaw">
              <CircleCheck size={17} aria-hidden="true" />
              <span>No danger, nothing that will not work.</span>
            </li>
          )}
        </ul>
      </div>
      {sized.findings.length > 0 && (
        <button type="button" className="bx" onClick={() => show('rules')}>
          All {sized.findings.length} findings
        </button>
      )}
      <Cautions list={CAUTIONS} />
    </aside>
  );
}
