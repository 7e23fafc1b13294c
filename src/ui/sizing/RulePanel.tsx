'use client';
/** The design rules: what each saw, why it matters, what mends it; by one button where no judgement is needed. */
import { clsx } from 'clsx';
import { useState } from 'react';
import { CircleCheck } from 'lucide-react';
import { RULE_SETS } from '../../core/codes';
import type { Autofix } from '../../core/rules/rule';
import type { JobFinding, Sized } from '../../core/rules/sized';
import { useJobFile } from '../shell/jobPage';

const SHORTEST_REASON = 8;

interface RulePanelProps {
  sized: Sized;
  mend(m: Autofix): void;
  waive(f: JobFinding, reason: string): void;
  takeBack(waiver: string): void;
}

export function RulePanel({ sized, mend, waive, takeBack }: RulePanelProps) {
  const { settings } = useJobFile();
  // What was set aside stands last, with its reason.
  const ordered = [...sized.findings.filter((f) => !f.waiver), ...sized.findings.filter((f) => f.waiver)];
  return (
    <div className="oscroll flex-auto min-h-0">
      {ordered.every((f) => f.waiver) && (
        <p className="szclean">
          <CircleCheck size={22} aria-hidden="true" />{' '}
          {ordered.length === 0
            ? 'No rule has anything to say against this design.'
            : 'What the rules say against this design is set aside, each with a reason.'}
        </p>
      )}
      <ul className="szfindings px-3.5">
        {ordered.map((f) => (
          <Row
            key={`${f.rule} ${f.at} ${f.says}`}
            f={f}
            editable={sized.revision !== undefined}
            mend={mend}
            waive={waive}
            takeBack={takeBack}
          />
        ))}
      </ul>
      <p className="quiet px-3 py-2.5">
        {RULE_SETS[settings.jurisdiction].standards} (from memory: check the edition). Local codes, the maker’s upfit
        guide and licensed practice come first.
      </p>
    </div>
  );
}

function Row({
  f,
  editable,
  mend,
  waive,
  takeBack,
}: { f: JobFinding; editable: boolean } & Omit<RulePanelProps, 'sized'>) {
  const { words } = useJobFile();
  const [reason, setReason] = useState<string>();
  const short = (reason ?? '').trim().length < SHORTEST_REASON;
  return (
    <li
      className={clsx(
        'grid items-start gap-3',
        'py-2.5 border-b-1 border-rule',
        'text-note leading-tight',
        'is-waived:text-ink-2 max-phone:grid-cols-1 max-phone:gap-1.5',
        `${f.severity.replaceAll(' ', '-')}${f.waiver ? ' waived' : ''}`,
      )}
    >
      <span
        className={clsx(
          'sev',
          'justify-self-start',
          'px-2 py-0.25 border border-current rounded',
          'font-cond font-bold text-plain',
          'within-danger:text-fail within-waived:line-through within-wears-out:text-warn',
        )}
      >
        {f.severity}
      </span>
      <div>
        <b className="first:font-cond first:text-large first:leading-close">{words(f.title)}</b>
        <p>{words(f.says)}</p>
        {f.waiver ? (
          <p>
            <b>Set aside by {f.waiver.by}:</b> {f.waiver.reason}
          </p>
        ) : (
          <>
            <p className="quiet">
              {words(f.why)} <i>{f.source}.</i>
            </p>
            <p>
              <b>{f.severity === 'look' ? 'Look:' : 'Fix:'}</b> {words(f.fix)}
            </p>
          </>
        )}
        {reason !== undefined && !f.waiver && (
          <form
            className="szwaive flex flex-wrap items-end gap-2 pt-1.5"
            onSubmit={(e) => {
              e.preventDefault();
              if (short) return;
              waive(f, reason.trim());
              setReason(undefined);
            }}
          >
            <label className="grid gap-0.5">
              <span>Why it may stay, on record</span>
              <textarea
                className="textarea w-full max-w-none"
                value={reason}
                maxLength={400}
                rows={2}
                autoFocus
                onChange={(e) => setReason(e.target.value)}
                onKeyDown={(e) => e.key === 'Escape' && setReason(undefined)}
              />
            </label>
            <button type="submit" className="btn btn-sm" disabled={short}>
              Set it aside
            </button>
            <button type="button" className="btn btn-sm" onClick={() => setReason(undefined)}>
              Leave it
            </button>
            {short && (
              <small className="basis-full text-fine" role="status">
                A sentence of {SHORTEST_REASON} letters or more.
              </small>
            )}
          </form>
        )}
      </div>
      <span className="grid gap-1.5">
        {!f.waiver &&
          f.answers?.map((a) => (
            <button
              key={a.says}
              type="button"
              className="btn btn-sm"
              onClick={() => mend(a.edit)}
              aria-label={`${words(a.says)}: ${words(f.says.split(':')[0]!)}`}
            >
              {words(a.says)}
            </button>
          ))}
        {f.mend && editable && !f.waiver && (
          <button type="button" className="btn btn-sm" onClick={() => mend(f.mend!)}>
            Do it
          </button>
        )}
        {f.waiver ? (
          <button type="button" className="btn btn-sm" onClick={() => takeBack(f.waiver!.id)}>
            Take it back
          </button>
        ) : (
          reason === undefined && (
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => setReason('')}
              aria-label={`Set aside: ${words(f.title)}`}
            >
              Set aside …
            </button>
          )
        )}
      </span>
    </li>
  );
}
