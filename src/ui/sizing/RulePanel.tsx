'use client';
/** The design rules: what each saw, why it matters, what mends it; by one button where no judgement is needed. */
import { CircleCheck } from 'lucide-react';
import { RULES_OF } from '../../core/units/preferences';
import type { Mend } from '../../core/rules/rule';
import type { Sized } from '../../core/rules/sized';
import { useBench } from '../job/bench';

export function RulePanel({ sized, mend }: { sized: Sized; mend(m: Mend): void }) {
  const { words, settings } = useBench();
  return (
    <div className="oscroll">
      {sized.findings.length === 0 && (
        <p className="szclean">
          <CircleCheck size={22} aria-hidden="true" /> No rule has anything to say against this design.
        </p>
      )}
      <ul className="szfindings">
        {sized.findings.map((f, i) => (
          <li key={`${f.rule}${f.at}${i}`} className={f.severity.replaceAll(' ', '-')}>
            <span className="sev">{f.severity}</span>
            <div>
              <b>{words(f.title)}</b>
              <p>{words(f.says)}</p>
              <p className="quiet">
                {words(f.why)} <i>{f.source}.</i>
              </p>
              <p>
                <b>Mend:</b> {words(f.fix)}
              </p>
            </div>
            {f.mend && sized.revision && (
              <button type="button" className="bx small" onClick={() => mend(f.mend!)}>
                Do it
              </button>
            )}
          </li>
        ))}
      </ul>
      <p className="quiet pad">{RULES_OF[settings.jurisdiction]} (from memory: check the edition). Local codes, the maker’s upfit guide and licensed practice come first.</p>
    </div>
  );
}
