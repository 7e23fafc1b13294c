/** The mend that puts a fuse of its own into a conductor. */
import { is } from '../parts/kinds';
import { FUSE_KINDS, interruptsAt, isFuseOrBreaker } from '../parts/fuses';
import { chargingVolts, mostFaultAmps, THIN_LEAD } from '../size/fuseChecks';
import { canFlow } from '../size/canFlow';
import { wireSpecOf } from '../size/fuseLimit';
import { fuseWindow } from '../size/protect';
import { ratingOf } from '../size/rating';
import { runsOf } from '../size/runs';
import { midSentence } from '../units/format';
import { insertFuse } from '../rig/insertFuse';
import { follow } from '../rig/follow';
import type { Conductor } from '../rig/schema';
import { wireArea } from '../units/wire';
import type { Autofix, RuleContext, Violation } from './rule';

/** Ω between a bank's posts and a fuse at it: lugs and a hand of cable, from memory. Less makes the fault larger: the safe side. */
const AT_THE_POST_OHMS = 0.0004;

/**
 * Share of its wire's ampacity a fuse takes where the load is not known: 15, 20 and 30 A on 14, 12 and 10 AWG, as NEC
 * 240.4(D) has it (from memory).
 */
const UNKNOWN_LOAD_SHARE = 0.5;

/** A a sense or coil wire takes: its fuse is the smallest that holds it, 2 or 3 A. Common practice. */
const SIGNAL_AMPS = 1.5;

/** A a fuse there may have to open into, and V it has to break. */
function asksOfFuse(c: RuleContext, conductor: Conductor, end: 'from' | 'to'): { amps: number; volts: number } {
  const at = c.part(conductor[end].part);
  const bank = is(at, 'battery') ? at : undefined;
  // At a post every bank joined there counts; on a branch, what the fuse before it would have to open into.
  const amps = bank
    ? follow(c.rig, { part: bank.id, terminal: 'plus' })
        .filter((s) => is(s.part, 'battery'))
        .reduce((sum, s) => sum + mostFaultAmps(c.rig, s.part!, s.ohms), mostFaultAmps(c.rig, bank, AT_THE_POST_OHMS))
    : Math.max(0, ...c.sizing.fuses.filter((f) => f.protects.includes(conductor.id)).map((f) => f.fault.near));
  return { amps, volts: chargingVolts(c.rig, at ?? c.part(conductor[end === 'from' ? 'to' : 'from'].part)!) };
}

/**
 * Rated as the fuse at the other end where that suits, else for what the conductor carries for hours, and for
 * every wire of its run; of the first kind that bears the volts and opens into what the banks can push.
 * Undefined where nothing made does all.
 */
export function ownFuse(c: RuleContext, conductor: Conductor, end: 'from' | 'to'): Autofix | undefined {
  // A sense or signal wire is no run.
  const run = runsOf(c.rig).find((r) => r.conductors.some((x) => x.id === conductor.id));
  const onUse = c.sizing.runs.find((r) => r.id === run?.id)?.table.continuous ?? 0;
  const load = Math.max(onUse, run ? canFlow(c.rig, run) : SIGNAL_AMPS);
  const others = (run?.inline ?? []).filter(isFuseOrBreaker).map(ratingOf);
  const { amps, volts } = asksOfFuse(c, conductor, end);
  const wires = (run?.conductors ?? [conductor]).map((x) => wireSpecOf(x));
  const thin = wires.every((w) => wireArea(w.gauge) <= wireArea(THIN_LEAD));
  for (const kind of FUSE_KINDS) {
    const opens = interruptsAt(kind, volts);
    if (opens === 0 || (opens < amps && !thin)) continue;
    const { fits, tight, to } = fuseWindow(Math.max(load, 0.1), wires, c.rules, kind);
    const pick =
      fits.find((r) => others.includes(r)) ??
      (load === 0 ? fits.findLast((r) => r <= UNKNOWN_LOAD_SHARE * to) : (fits[0] ?? tight.at(-1)));
    if (pick !== undefined) return { pieces: insertFuse(c.rig, conductor, end, pick, kind.id) };
  }
  return undefined;
}

/** "Fit 150 A there." where a fuse can be told, else what is wanted in words alone. */
export function fitFuse(
  c: RuleContext,
  conductor: Conductor | undefined,
  end: 'from' | 'to',
  where: string,
): Pick<Violation, 'fix' | 'mend'> {
  const mend = conductor && ownFuse(c, conductor, end);
  const fuse = mend && 'pieces' in mend ? mend.pieces.parts[0] : undefined;
  return fuse
    ? {
        fix: `A fuse ${where}: ${fuse.note}, ${midSentence(FUSE_KINDS.find((k) => k.id === fuse.options!['type'])!.label)}.`,
        mend: mend!,
      }
    : { fix: `A fuse ${where}.` };
}
