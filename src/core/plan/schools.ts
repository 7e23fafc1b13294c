/** The trade's schools on which link to fit, each argued with this rig's own figures. */
import type { Candidate, School } from './candidates';
import type { CandidateOutcome } from './outcome';

interface SchoolRow {
  school: School;
  title: string;
  /** What its people say. */
  claim: string;
  /** What the simulation says of it here. */
  here(o: CandidateOutcome, hadBoost: boolean): string;
}

const percent = (x: number) => `${Math.round(x * 100)} %`;
const alternator = (o: CandidateOutcome) =>
  o.alternator
    ? `the alternator at ${percent(o.alternator.idleShare)} of its limit at idle, ${o.alternator.hottest.toFixed(0)} °C`
    : 'no alternator';

const onShore = (o: CandidateOutcome) => {
  if (o.startOnShore === undefined) return 'no shore power here';
  return o.startOnShore ? 'the start battery gains on shore' : 'the start battery gains nothing on shore';
};

export const SCHOOLS: readonly SchoolRow[] = [
  {
    school: 'direct',
    title: 'Direct is fine, measure it',
    claim: 'The loop limits the current, nothing is lost, boost is kept.',
    here: (o) => `${Math.round(o.linkPeakAmps)} A at first, ${alternator(o)}; arrives at ${percent(o.arrives)}.`,
  },
  {
    school: 'regulated',
    title: 'Regulate it',
    claim: 'Lithium takes everything, a long cable needs the lift, each bank wants its own volts.',
    here: (o, hadBoost) =>
      `${Math.round(o.linkPeakAmps)} A and no more, ${alternator(o)}; arrives at ` +
      `${percent(o.arrives)}${hadBoost && o.boost === 'none' ? ', boost lost' : ''}.`,
  },
  {
    school: 'sensed',
    title: 'Let a relay decide by volts',
    claim: 'Stored on shore power both banks are kept; few new wires.',
    here: (o) =>
      `${onShore(o)}; arrives at ${percent(o.arrives)}${o.dangers.length > 0 ? '. With lithium it does not let go' : ''}.`,
  },
  {
    school: 'small',
    title: 'Only the start battery needs help',
    claim: 'A lamp or a maintainer for storage and parasitic loads.',
    here: (o) => `${o.linkPeakAmps.toFixed(1)} A at most; the battery behind ends at ${percent(o.ends)}.`,
  },
  {
    school: 'thin',
    title: 'The thin line will do',
    claim: 'Enough for a breakaway battery or a towed car, not for a house bank.',
    here: (o) => `${o.linkPeakAmps.toFixed(0)} A at first; arrives at ${percent(o.arrives)}.`,
  },
];

export interface SchoolArgument {
  title: string;
  claim: string;
  /** Candidate that stands for it. */
  candidate: string;
  here: string;
}

/** Each school that a compared candidate stands for, argued with that candidate's figures. */
export function argue(
  candidates: readonly Candidate[],
  outcomes: ReadonlyMap<string, CandidateOutcome>,
  hadBoost: boolean,
): SchoolArgument[] {
  return SCHOOLS.flatMap(({ school, title, claim, here }) => {
    const stands = candidates.find((c) => c.school === school && outcomes.has(c.id));
    return stands ? [{ title, claim, candidate: stands.id, here: here(outcomes.get(stands.id)!, hadBoost) }] : [];
  });
}
