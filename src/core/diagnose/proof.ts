/** What is still to be read before a verdict: that a sound rig does what the owner misses, and the other side of one bad joint. */
import type { Complaint } from '../parts/complaints';
import { is, nominalOf } from '../parts/kinds';
import type { TraitName } from '../parts/traits';
import { measurementId, rigMeasurements } from '../probe/measurement';
import { partValue } from '../rig/value';
import type { Belief } from './belief';
import { stateToProve } from './complaintStates';
import { isComplaint } from './intake';
import { dropsUnread, isHeavy, isOnPath } from './path';
import { AT_REST, PROVES, type Placed, type Side, type Unproved, type Witness } from './witness';
import { apartOf, clampsOn, wayTo, zeroClamps } from './witnessPoints';

/** What is still to be read before a sound rig has shown that it does what the owner misses. */
export function unproved(belief: Belief, about: (complaint: Complaint) => boolean = () => true): Unproved[] {
  const asked = new Set(belief.observed.map((o) => o.what));
  return belief.intake
    .filter(isComplaint)
    .filter(about)
    .flatMap((complaint) => {
      const state = stateToProve(belief, complaint);
      if (state === undefined) return [];
      // A post is read where the red lead is on it: one end of a drop says nothing of what stands there.
      const read = new Set(belief.evidence.map((e) => `${e.state}/${e.probe}`));
      const taken = new Set(belief.evidence.map((e) => `${e.state}/${measurementId(e.probe, e.ref)}`));
      return PROVES[complaint]
        .filter((w) => !('whereUneven' in w || 'atRestWhereUneven' in w) || isUneven(belief, state, w))
        .filter((w) => !('whereTakesLittle' in w) || takesLittle(belief, state, w))
        .flatMap((w): Unproved[] =>
          'apart' in w
            ? apartOf(belief, w.apart)
            : 'pieces' in w
              ? piecesWhereLost(belief, state)
              : 'zeroOf' in w
                ? zeroClamps(belief, w)
                : [
                    { state: stateOfWitness(belief, w, state), ...wayTo(belief, w) },
                    ...('running' in w && isLow(belief, w) ? lostOnTheWay(belief) : []),
                  ],
        )
        .filter(({ points, questions, test }) => points.length + questions.length > 0 || test !== undefined)
        .filter(
          ({ points, questions, test, state: inState }) =>
            !points.some((p) => read.has(`${inState}/${p}`)) &&
            !questions.some((q) => asked.has(q)) &&
            !(test !== undefined && taken.has(`${inState}/${test}`)),
        );
    });
}

/**
 * What is still to be read before one bad joint is called the whole of it: it is seen on one side of the circuit, and a
 * second one on the other side, where little flows for the first one, would stay. Common practice: volts lost piece by
 * piece, on the plus side and on the minus side.
 */
export function sidesUnread(belief: Belief, fault: string): Unproved[] {
  const { effects } = belief.faults.find((f) => f.id === fault)!;
  const owed = owedFirst(belief);
  // What a bank gives for so long says nothing of what charges it, and the other way round.
  const bankTests = owed.filter(({ questions }) => questions.length > 0);
  // Nothing flows through what is open: the other side then shows nothing.
  if (!effects.some((e) => e.do === 'add-ohms')) return bankTests;
  const posts = owed.filter(({ points }) => points.length > 0 && points.every((p) => /\.(plus|minus)$/.test(p)));
  return [...bankTests, ...posts, ...dropsUnread(belief)];
}

/** Complaints that a bank itself may be behind, whatever else is found. */
const ABOUT_A_BANK: readonly Complaint[] = ['coach-short-life', 'chassis-flat', 'both-flat'];

/** Of the complaint's proof, what comes before any verdict: what is measured, and a bank's own test where it is about a bank. */
export const owedFirst = (belief: Belief): Unproved[] => [
  ...unproved(belief, (c) => ABOUT_A_BANK.includes(c)),
  ...unproved(belief, (c) => !ABOUT_A_BANK.includes(c)).filter(({ questions }) => questions.length === 0),
];

/** V of 12 V by which the middle of a bank may stand off half of it. Common practice: a weak block shows as some tenths. */
const UNEVEN_VOLTS = 0.05;

/** The same from which one block is weak, whatever else fits: halves 0.2 V apart. Common practice. */
const WEAK_VOLTS = 0.1;

export const RUNNING = ['idle', 'fast-idle'] as const;

/** Volts of a 12 V battery under which it is not charged at that speed: an alternator may need more of it. Common practice. */
const CHARGED_VOLTS = 13.1;

type PostWitness = Extract<Witness, { post: string }>;

/** The state a witness is read in, by the one its complaint is proved in. */
function stateOfWitness(belief: Belief, w: Placed, state: string): string {
  if ('atRestWhereUneven' in w) return AT_REST;
  return 'running' in w ? RUNNING[isLow(belief, w) ? 1 : 0] : state;
}

/** Whether a battery was read too low to be charged at idle, with a faster one to look at. */
function isLow(belief: Belief, w: PostWitness): boolean {
  const { points } = wayTo(belief, w);
  const { rig } = belief.compiled;
  return (
    w.post === 'plus' &&
    belief.workspace.states.some((s) => s.id === RUNNING[1]) &&
    belief.evidence.some(
      (e, r) =>
        e.state === RUNNING[0] &&
        points.includes(e.probe) &&
        belief.blunder[r]! < 0.5 &&
        e.value < CHARGED_VOLTS * (rig.vehicles[0]!.nominalVolts / 12),
    )
  );
}

/** The drop from what charges the engine's battery to its post, where leads reach: low volts are made low, or lost. */
function lostOnTheWay({ compiled: { rig } }: Belief): Unproved[] {
  const ends = (of: TraitName, terminal: string) =>
    rig.parts.filter((p) => is(p, of) && p.side === 'engine').map((p) => `${p.id}.${terminal}`);
  const [sources, posts] = [ends('alternator', 'output'), ends('battery', 'plus')];
  const drop = rigMeasurements(rig).find(
    (m) => m.kind === 'drop' && [m.red, m.black!].every((k) => [...sources, ...posts].includes(k)),
  );
  return drop ? [{ state: RUNNING[1], points: [], questions: [], test: drop.id }] : [];
}

/** V of 12 V that a sound path may lose between the posts of two banks. Common practice: a tenth each joint is bad. */
const LOST_VOLTS = 0.1;

/**
 * The drops over each piece between the banks, stud to stud, where more than a little is lost from the engine's bank to
 * the other: what closes and drops little at amps is sound; what closes and was not looked at, nobody knows.
 */
function piecesWhereLost(belief: Belief, state: string): Unproved[] {
  const { rig } = belief.compiled;
  const at = (side: Side) => {
    const key = `${rig.parts.find((p) => is(p, 'battery') && p.side === side)?.id}.plus`;
    return belief.evidence.find((e, r) => e.state === state && e.probe === key && belief.blunder[r]! < 0.5);
  };
  const [engine, coach] = [at('engine'), at('coach')];
  const times = rig.vehicles[0]!.nominalVolts / 12;
  if (!engine || !coach || engine.ref !== coach.ref || engine.value - coach.value < LOST_VOLTS * times) return [];
  return rigMeasurements(rig)
    .filter((m) => m.kind === 'drop' && [m.red, m.black!].every((k) => isOnPath(rig, k) && isHeavy(rig, k)))
    .map((m) => ({ state, points: [], questions: [], test: m.id }));
}

/** V of 12 V under which a bank that nothing charges is low. Common practice. */
const LOW_VOLTS = 12.2;
/** A an amp-hour that a low one takes at least. Common practice: a tenth to a quarter; less than this is a worn one. */
const TAKES_SHARE = 0.03;

/** Whether a bank that is low elsewhere takes few amps where it is charged: full it would stand higher, good it would take more. */
function takesLittle(belief: Belief, state: string, { of, side }: { of: TraitName; side?: Side }): boolean {
  const { rig } = belief.compiled;
  const bank = rig.parts.find((p) => is(p, of) && p.side === side);
  if (!bank) return false;
  const times = nominalOf(bank, rig.vehicles.find((v) => v.id === bank.vehicle) ?? rig.vehicles[0]!) / 12;
  const clamps = clampsOn(belief, bank.id, 'minus');
  const read = (test: (e: Belief['evidence'][number]) => boolean) =>
    belief.evidence.some((e, r) => belief.blunder[r]! < 0.5 && test(e));
  const low = read(
    (e) => e.state !== state && e.probe === `${bank.id}.plus` && e.value < LOW_VOLTS * times && e.value > 0,
  );
  return (
    low &&
    read((e) => e.state === state && clamps.includes(e.probe) && e.value < TAKES_SHARE * partValue(bank, 'capacity'))
  );
}

/** A bank whose halves stand too far apart at rest: the place of the reading of its middle. */
export function halvesApart(belief: Belief): number | undefined {
  for (const bank of belief.compiled.rig.parts.filter((p) => is(p, 'battery')))
    if (isUneven(belief, AT_REST, { of: 'battery', bank: bank.id }, WEAK_VOLTS))
      return belief.evidence.findIndex((e) => e.state === AT_REST && e.probe === `${bank.id}.middle`);
  return undefined;
}

/** Whether a bank's middle, as read in a state, stands off half: what takes its amps like the others may hold none. */
function isUneven(
  belief: Belief,
  state: string,
  { of, side, bank: id }: { of: TraitName; side?: Side; bank?: string },
  most = UNEVEN_VOLTS,
): boolean {
  const { rig } = belief.compiled;
  const bank = rig.parts.find(
    (p) => is(p, of) && (side === undefined || p.side === side) && (id === undefined || p.id === id),
  );
  const at = (terminal: string) => {
    const read = belief.evidence.find(
      (e, r) => e.state === state && e.probe === `${bank?.id}.${terminal}` && belief.blunder[r]! < 0.5,
    );
    return read && { volts: read.value, from: read.ref };
  };
  const [plus, middle, minus] = [at('plus'), at('middle'), at('minus')];
  if (!plus || !middle || plus.from !== middle.from) return false;
  const low = minus && minus.from === plus.from ? minus.volts : 0;
  const whole = plus.volts - low;
  return Math.abs(middle.volts - low - whole / 2) > most * Math.max(1, Math.round(whole / 12));
}
