'use client';
/** The slip of the Sizing station: the worst thing that one press mends, how the design stands, cautions. */
import { ArrowRight, CircleCheck, TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Autofix } from '../../core/rules/rule';
import type { Sized } from '../../core/rules/sized';
import type { TowReport } from '../../core/rules/tow/report';
import { useJobFile, usePlace } from '../shell/jobPage';
import { Slip } from '../shell/Slip';

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
  if (tow) return <TowSlip tow={tow} {...(apply ? { apply } : {})} {...(applies ? { applies } : {})} />;
  if (!sized)
    return <Slip cautions={CAUTIONS} action={<p className="waiting py-2 text-note text-ink-2">Working out …</p>} />;
  return <RigSlip sized={sized} mend={mend} show={show} />;
}

/** A line of what was found: a mark, and what it says. */
function Saw({ good = false, children }: { good?: boolean; children: ReactNode }) {
  const Icon = good ? CircleCheck : TriangleAlert;
  return (
    <li className="szsaw grid grid-cols-icon gap-1.5">
      <Icon size={17} aria-hidden="true" />
      <span>{children}</span>
    </li>
  );
}

function TowSlip({ tow, apply, applies }: { tow: TowReport; apply?(): void; applies?: string }) {
  const { words } = useJobFile();
  const { before, changes, left } = tow.audit;
  return (
    <Slip
      cautions={TOW_CAUTIONS}
      action={
        tow.revision && changes.length > 0 && left.length === 0 ? (
          <button type="button" className="btn next" onClick={apply}>
            <span>
              {applies}
              <small>{words(changes[0]!.says)}</small>
            </span>
            <ArrowRight size={22} aria-hidden="true" />
          </button>
        ) : (
          <p className="text-note leading-tight">
            {before.troubles.length === 0
              ? words('Coupled, nothing goes wrong in any state.')
              : left.length > 0
                ? 'What is left wants a judgement.'
                : `${changes.length === 1 ? 'One change puts' : `${changes.length} changes put`} it right: see the list.`}
          </p>
        )
      }
    >
      <h3>Coupled as it is</h3>
      <div
        className="slip-scroll flex-1 min-h-0 pb-3.5 overflow-y-auto"
        tabIndex={0}
        role="region"
        aria-label="Coupled as it is"
      >
        <ul className="grid gap-1.5 text-note leading-tight">
          {before.troubles.map((t, i) => (
            <Saw key={`${t.id}${i}`}>{words(t.title)}</Saw>
          ))}
          {before.troubles.length === 0 && <Saw good>Parked, stopped, driving, braking.</Saw>}
        </ul>
      </div>
    </Slip>
  );
}

function RigSlip({ sized, mend, show }: { sized: Sized; mend(m: Autofix): void; show(view: 'rules'): void }) {
  const { words } = useJobFile();
  const grave = sized.findings.filter((f) => f.severity !== 'tidy' && !f.waiver);
  // The same finding in several places is one line with their number.
  const titles = [...new Set(grave.map((f) => f.title))].map(
    (title) => [title, grave.filter((f) => f.title === title).length] as const,
  );
  return (
    <Slip cautions={CAUTIONS} action={<RigAction sized={sized} grave={grave.length} mend={mend} />}>
      <h3>What the rules see</h3>
      <div
        className="slip-scroll flex-1 min-h-0 pb-3.5 overflow-y-auto"
        tabIndex={0}
        role="region"
        aria-label="What the rules see"
      >
        <ul className="grid gap-1.5 text-note leading-tight">
          {titles.slice(0, SHOWN).map(([title, times]) => (
            <Saw key={title}>
              {words(title)}
              {times > 1 && ` (${times})`}
            </Saw>
          ))}
          {grave.length === 0 && <Saw good>No danger, nothing that will not work.</Saw>}
        </ul>
      </div>
      {sized.findings.length > 0 && (
        <button type="button" className="btn" onClick={() => show('rules')}>
          All {sized.findings.length} findings
        </button>
      )}
    </Slip>
  );
}

/** The worst that one press mends; where nothing is picked, or nothing left to mend, where to go on. */
function RigAction({ sized, grave, mend }: { sized: Sized; grave: number; mend(m: Autofix): void }) {
  const { words } = useJobFile();
  const { go } = usePlace();
  const next = sized.revision ? sized.findings.find((f) => f.mend && !f.waiver && f.severity !== 'tidy') : undefined;
  if (next)
    return (
      <button type="button" className="btn next btn-accent" onClick={() => mend(next.mend!)}>
        <span>
          {words(next.fix.replace(/\.$/, ''))}
          <small>{words(next.says.split(':')[0]!)}</small>
        </span>
        <ArrowRight size={22} aria-hidden="true" />
      </button>
    );
  if (!sized.revision)
    return (
      <>
        <p className="text-note leading-tight">
          No link is picked yet: this is the rig as it is. Pick one under Options to alter its copper here.
        </p>
        <button type="button" className="btn w-full" onClick={() => go('options')}>
          To the options
        </button>
      </>
    );
  return (
    <>
      <p className="text-note leading-tight">
        {grave === 0
          ? 'Nothing left to mend by a button: the design stands.'
          : 'What is left wants a look or a judgement: see the rules.'}
      </p>
      {grave === 0 && (
        <button type="button" className="btn next" onClick={() => go('build')}>
          <span>Plan the build</span>
          <ArrowRight size={22} aria-hidden="true" />
        </button>
      )}
    </>
  );
}
