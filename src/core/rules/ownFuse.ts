/** The mend that puts a fuse of its own into a conductor. */
import { is } from '../parts/kinds';
import { FUSE_KINDS, interruptsAt, isFuseOrBreaker } from '../parts/fuses';
import { chargingVolts, faultAmps } from '../size/fuseChecks';
import { insulationOf, placeOf } from '../size/gaugeTable';
import { fuseWindow } from '../size/protect';
import { ratingOf } from '../size/rating';
import { runsOf } from '../size/runs';
import { midSentence } from '../units/format';
import { insertFuse } from '../rig/insertFuse';
import type { Conductor } from '../rig/schema';
import type { Autofix, RuleContext, Violation } from './rule';

/** Ω between a bank's posts and a fuse at it: lugs and a hand of cable, from memory. Less makes the fault larger: the safe side. */
const AT_THE_POST_OHMS = 0.0004;

/**
 * Share of its wire's ampacity a fuse takes where the load is not known: 15, 20 and 30 A on 14, 12 and 10 AWG, as NEC
 * 240.4(D) has it (from memory).
 */
const UNKNOWN_LOAD_SHARE = 0.5;

/**
 * Rated as the fuse at the other end where that suits, else for what the conductor carries for hours, and for
 * every wire of its run; of the first kind that bears the volts and opens into what the bank can push.
 * Undefined where nothing made does all.
 */
export function ownFuse(c: RuleContext, conductor: Conductor, end: 'from' | 'to'): Autofix | undefined {
  const run = runsOf(c.rig).find((r) => r.conductors.some((x) => x.id === conductor.id))!;
  const load = c.sizing.runs.find((r) => r.id === run.id)?.table.continuous;
  const others = run.inline.filter(isFuseOrBreaker).map(ratingOf);
  const bank = c.part(conductor[end].part);
  const atBank = is(bank, 'battery');
  // On a branch: what the fuse before it would have to open into, at most.
  const amps = atBank
    ? faultAmps(c.rig, bank!, AT_THE_POST_OHMS)
    : Math.max(0, ...c.sizing.fuses.filter((f) => f.protects.includes(conductor.id)).map((f) => f.fault.near));
  const volts = chargingVolts(c.rig, bank ?? c.part(conductor[end === 'from' ? 'to' : 'from'].part)!);
  const wires = run.conductors.map((x) => ({ gauge: x.gauge, insulation: insulationOf(x), place: placeOf(x) }));
  for (const kind of FUSE_KINDS) {
    if (kind.volts < volts || interruptsAt(kind, volts) < amps) continue;
    const { fits, tight, to } = fuseWindow(Math.max(load ?? 0, 0.1), wires, kind);
    const pick =
      fits.find((r) => others.includes(r)) ??
      (load === undefined ? fits.findLast((r) => r <= UNKNOWN_LOAD_SHARE * to) : (fits[0] ?? tight.at(-1)));
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
