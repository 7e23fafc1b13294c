'use client';
/** The one test that would unseat the leading suspect, and how it would have to come out. */
import type { ChangeOfMind } from '../../core/diagnose/diagnose';
import { useJobFile } from '../shell/jobPage';
import { midSentence, showBand, showPercent, showText } from '../../core/units/format';

export function ChangesMind({ changes }: { changes: ChangeOfMind }) {
  const { stateOf } = useJobFile();
  const { label, name, state } = changes;
  return (
    <p className="quiet" role="note">
      <b>What would change this:</b>{' '}
      {label === undefined ? name : `${label}, ${midSentence(name)}, ${stateOf(state).label.toLowerCase()}`}:{' '}
      {comesOut(changes)}. Then “{changes.leader}” leads
      {changes.chance < 0.005 ? ' (less than 1 % likely).' : ` (${showPercent(changes.chance)} % likely).`}
    </p>
  );
}

function comesOut({ answer, unit, lo, hi }: ChangeOfMind): string {
  if (answer !== undefined) return `“${answer}”`;
  if (lo !== undefined && hi !== undefined) return `${showBand(lo, hi, unit!)}, twice`;
  return lo !== undefined ? `${showText(lo, unit!)} or more, twice` : `${showText(hi!, unit!)} or less, twice`;
}
