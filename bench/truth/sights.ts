/** What looking, ringing, swapping and testing find on a true rig: figures, or 1 and 0. */
import type { Hidden } from './hidden';
import { nominalOf, type TrueRig } from './trueRig';

/** Ohms from which a lug or joint of heavy cable can be seen to be bad. */
const SEEN_OHMS = 0.012;

const ohms = (v: TrueRig, id: string): number => v.ohms.get(id)?.ohms ?? 0;
const watts = (v: TrueRig, id: string): number => {
  const r = v.contacts.get(id)?.ohms ?? ohms(v, id);
  return r > 0 && r < 1e3 ? v.amps(id) ** 2 * r : 0;
};
const wireAt = (v: TrueRig, part: string, terminal: string): string =>
  v.rig.conductors.find((c) => c.from.part === part && c.from.terminal === terminal)?.id ?? '';

/** Charged first, each block alone, at half its rated amps: the volts of the worst of them as a 12 V block. */
function loadTest(v: TrueRig, owner: string): number {
  const part = v.rig.parts.find((p) => p.id === owner);
  const blocks = (v.batteries.get(owner) ?? []).map((b) => {
    const amps = b.cca > 0 ? b.cca / 2 : 1.6 * b.ah;
    // Twice as worn as it may be, it still holds; sulfated it does not.
    const own = b.cca > 0 ? 1.6 / b.cca : 0.5 / b.ah;
    const weak = b.filled < 0.13 ? 1.8 : 0;
    return 12.55 - amps * own * b.worn - (12 / b.rated) * b.deadCells * 2 - weak;
  });
  return Math.min(...blocks) * ((part ? nominalOf(v.rig, part) : 12) / 12);
}

const gravity = (v: TrueRig, owner: string): number[] =>
  (v.batteries.get(owner) ?? []).map((b) => 1.115 + 0.155 * b.filled - 0.03 * b.deadCells);

export const FINDS: Readonly<Record<string, (v: TrueRig, owner: string, hidden: Hidden) => number>> = {
  dead: (v, owner) => Number(v.marks.has(`${owner}.dead`) || ohms(v, wireAt(v, owner, 'ground')) === Infinity),
  // A module's lamp says what it asks for, not what the contact does.
  asks: (v, owner) => Number([...v.contacts].some(([id, c]) => id.startsWith(`${owner}.from-`) && c.closed)),
  wedged: (v, owner) => Number(v.marks.has(`${owner}.wedged`)),
  blown: (v, owner) => Number(ohms(v, `${owner}.element`) === Infinity || ohms(v, `${owner}.fuse`) === Infinity),
  // A cable that is merely too thin is sound at its ends.
  'bad-end': (v, owner, hidden) => Number(ohms(v, owner) > SEEN_OHMS && hidden.bad.includes(owner)),
  swollen: (v, owner) => Number((v.batteries.get(owner)?.[0]?.worn ?? 1) > 4),
  warm: (v, owner) => Number(watts(v, `${owner}.element`) > 4),
  output: (v, owner) => v.alternators.get(owner)?.strength ?? 1,
  watts: (v, owner) => Math.max(watts(v, `${owner}.contact`), watts(v, `${owner}.element`)),
  ohms: (v, owner) => ohms(v, owner),
  coil: (v, owner) => ohms(v, `${owner}.coil`),
  helps: (_, owner, hidden) => Number(hidden.bad.includes(owner)),
  lamp: (v, point) => v.lampAt(point),
  'load-test': loadTest,
  'gravity-low': (v, owner) => Math.min(...gravity(v, owner)),
  'gravity-high': (v, owner) => Math.max(...gravity(v, owner)),
};
