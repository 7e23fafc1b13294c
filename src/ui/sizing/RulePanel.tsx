'use client';
/** The design rules: what each saw, why it matters, what mends it; by one button where no judgement is needed. */
import { useState } from 'react';
import { CircleCheck } from 'lucide-react';
import { RULE_SETS } from '../../core/codes';
import type { Autofix } from '../../core/rules/rule';
import type { JobFinding, Sized } from '../../core/rules/sized';
import { useJobPage } from '../shell/jobPage';

const SHORTEST_REASON = 8;

interface RulePanelProps {
  sized: Sized;
  mend(m: Autofix): void;
  waive(f: JobFinding, reason: string): void;
  takeBack(waiver: string): void;
}

export function RulePanel({ sized, mend, waive, takeBack }: RulePanelProps) {
  const { settings } = useJobPage();
  // What was set aside stands last, with its reason.
  const ordered = [...sized.findings.filter((f) => !f.waiver), ...sized.findings.filter((f) => f.waiver)];
  return (
    <div className="oscroll">
      {ordered.every((f) => f.waiver) && (
        <p className="szclean">
          <CircleCheck size={22} aria-hidden="true" />{' '}
          {ordered.length === 0
            ? 'No rule has anything to say against this design.'
            : 'What the rules say against this design is set aside, each with a reason.'}
        </p>
      )}
      <ul className="szfindings">
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
      <p className="quiet pad">
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
  const { words } = useJobPage();
  const [reason, setReason] = useState<string>();
  const short = (reason ?? '').trim().length < SHORTEST_REASON;
  return (
    <li className={`${f.severity.replaceAll(' ', '-')}${f.waiver ? ' waived' : ''}`}>
      <span className="sev">{f.severity}</span>
      <div>
        <b>{words(f.title)}</b>
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
            className="szwaive"
            onSubmit={(e) => {
              e.preventDefault();
              if (short) return;
              waive(f, reason.trim());
              setReason(undefined);
            }}
          >
            <label>
              <span>Why it may stay, on record</span>
              <textarea
                className="textarea"
                value={reason}
                maxLength={400}
                rows={2}
                autoFocus
                onChange={(e) => setReason(e.target.value)}
                onKeyDown={(e) => e.key === 'Escape' && setReason(undefined)}
              />
            </label>
            <button type="submit" className="bx small" disabled={short}>
              Set it aside
            </button>
            <button type="button" className="bx small" onClick={() => setReason(undefined)}>
              Leave it
            </button>
            {short && <small role="status">A sentence of {SHORTEST_REASON} letters or more.</small>}
          </form>
        )}
      </div>
      <span className="szdo">
        {!f.waiver &&
          f.answers?.map((a) => (
            <button
              key={a.says}
              type="button"
              className="bx small"
              onClick={() => mend(a.edit)}
              aria-label={`${words(a.says)}: ${words(f.says.split(':')[0]!)}`}
            >
              {words(a.says)}
            </button>
          ))}
        {f.mend && editable && !f.waiver && (
          <button type="button" className="bx small" onClick={() => mend(f.mend!)}>
            Do it
          </button>
        )}
        {f.waiver ? (
          <button type="button" className="bx small" onClick={() => takeBack(f.waiver!.id)}>
            Take it back
          </button>
        ) : (
          reason === undefined && (
            <button
              type="button"
              className="bx small"
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
