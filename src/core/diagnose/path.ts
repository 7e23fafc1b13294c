/** The heavy path between the banks, piece by piece: what of it nobody has read yet. */
import type { Complaint } from '../parts/complaints';
import { is, partKind } from '../parts/kinds';
import { rigMeasurements } from '../probe/measurement';
import type { Rig } from '../rig/schema';
import type { Belief } from './belief';
import { SHOWS_IN } from './complaintStates';
import { isComplaint } from './intake';
import { CHARGED, PROVES, type Unproved } from './witness';

/** Whether a point is on a piece of the heavy path between the banks. */
export const isOnPath = (rig: Rig, key: string): boolean =>
  rig.parts.some(
    (p) => p.id === key.split('.')[0] && ['inline', 'link'].includes(partKind(p.kind).role) && !is(p, 'disconnect'),
  );

/** Whether a heavy cable ends at a point. */
export const isHeavy = (rig: Rig, key: string): boolean =>
  rig.conductors.some((c) => c.use === 'feed' && [c.from, c.to].some((e) => `${e.part}.${e.terminal}` === key));

/** Direct drops over the heavy pieces between the banks that nobody has read in the complaint's own state. */
export function dropsUnread(belief: Belief): Unproved[] {
  const { rig } = belief.compiled;
  const known = new Set(belief.workspace.states.map((s) => s.id));
  const complaints = belief.intake.filter((c): c is Complaint => isComplaint(c) && PROVES[c] === CHARGED);
  const state = complaints.map((c) => SHOWS_IN[c].find((s) => known.has(s))).find((s) => s !== undefined);
  if (state === undefined) return [];
  const onPath = (key: string) => isOnPath(rig, key);
  const isBankOrPath = (key: string) =>
    onPath(key) || rig.parts.some((p) => p.id === key.split('.')[0] && is(p, 'battery'));
  const read = new Set(
    belief.evidence.flatMap((e) => (e.state === state ? [`${e.probe}~${e.ref}`, `${e.ref}~${e.probe}`] : [])),
  );
  const all = rigMeasurements(rig);
  const drops = all
    .filter((m) => m.kind === 'drop' && isHeavy(rig, m.red) && isHeavy(rig, m.black!))
    .filter((m) => onPath(m.red) || onPath(m.black!));
  // Too long a cable to span with two leads: each of its ends is read from where the others are.
  const spanned = new Set(drops.flatMap((m) => [m.id, `${m.black}~${m.red}`]));
  const ends: readonly string[] = rig.conductors
    .filter((c) => c.use === 'feed')
    .map(({ from, to }) => [`${from.part}.${from.terminal}`, `${to.part}.${to.terminal}`] as const)
    .filter(([a, b]) => !spanned.has(`${a}~${b}`) && [a, b].every((k) => isBankOrPath(k)))
    .flatMap((ends) => ends.filter((e) => onPath(e)));
  const seenAlone = new Set(
    belief.evidence.flatMap((e) => (e.state === state && !spanned.has(`${e.probe}~${e.ref}`) ? [e.probe] : [])),
  );
  const alone = all.filter((m) => m.kind === 'volts' && ends.includes(m.red) && !seenAlone.has(m.red));
  return [...drops.filter((m) => !read.has(m.id)), ...alone].map((m) => ({
    state,
    points: [],
    questions: [],
    test: m.id,
  }));
}
