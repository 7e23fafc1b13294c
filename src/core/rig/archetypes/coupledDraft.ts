/** Where everything sits in two coupled vehicles, what the link asks for, how thick and how well fused its line is. */
import type { PartKindId } from '../../parts/kinds';
import { POST_LEAD_METRES } from '../insertFuse';
import { assumed, type Parameter } from '../../units/parameter';
import type { Part, Rig } from '../schema';
import type { BankChoice } from './choicesSchema';
import { USUAL_HOUSE, USUAL_VAN_AMPS, type CoupledFamily, type CoupledLink } from './coupledChoices';
import type { CoupledChoices } from './coupledSchema';
import { bankNote, bankOptions, drawPart, fuseAbove, lineGauge, PROFILES, startingAmps } from './drawing';

const VAN = { accessory: 'Accessory', accessoryCharger: 'Van charger' } as const;

export const WORDS: Readonly<
  Record<
    CoupledFamily,
    {
      tow: string;
      behind: string;
      bank: string;
      /** A second battery in front, and what fills it. */
      accessory: string;
      accessoryCharger: string;
      role: Rig['vehicles'][number]['role'];
      behindRole: Rig['vehicles'][number]['role'];
    }
  >
> = {
  trailer: {
    ...VAN,
    tow: 'Truck',
    behind: 'Trailer',
    bank: 'Trailer bank',
    role: 'tow-vehicle',
    behindRole: 'trailer',
  },
  camper: { ...VAN, tow: 'Truck', behind: 'Camper', bank: 'Camper bank', role: 'tow-vehicle', behindRole: 'camper' },
  'towed-car': {
    tow: 'Motorhome',
    accessory: 'House bank',
    accessoryCharger: 'House charger',
    behind: 'Towed car',
    bank: 'Car battery',
    role: 'motorhome',
    behindRole: 'towed-car',
  },
  'second-battery': { ...VAN, tow: 'Van', behind: 'Trailer', bank: 'Trailer bank', role: 'van', behindRole: 'trailer' },
  'trailer-48': {
    ...VAN,
    tow: 'Truck',
    behind: 'Trailer',
    bank: 'Trailer bank',
    role: 'tow-vehicle',
    behindRole: 'trailer',
  },
};

/** Metres between the vehicles; a camper stands on the bed. */
export const GAP = { trailer: 1.2, camper: -2.2, 'towed-car': 1.8, 'second-battery': 1, 'trailer-48': 1.2 } as const;

/** W of a three-way fridge's 12 V element in North America, 23–25 A: common practice. */
export const FRIDGE_WATTS = 290;
/** A it draws at the volts of a running engine's line. */
export const fridgeAmps = (c: CoupledChoices): number => (c.fridgeWatts ?? FRIDGE_WATTS) / 11.6;

/** A of the fuses of a line that a 55 W lamp limits to some 5 A, and of a fridge element's own. Common practice. */
export const LAMP_LINE = { vehicle: 20, behind: 15 } as const;
export const FRIDGE_FUSE_AMPS = 40;

export const heavy = (link: CoupledLink) =>
  link === 'heavy-line' || link === 'dcdc' || link === 'dcdc-dual' || link === 'chained';
export const charges = (link: CoupledLink) => link.startsWith('dcdc') || link === 'chained';

/** What every section of the drawing is drawn with. */
export type Draft = ReturnType<typeof draftOf>;

/** Where everything sits, what the link asks for, how thick and how well fused its line is. */
// eslint-disable-next-line max-lines-per-function, complexity -- a table: where each thing stands, what each choice makes of it
export function draftOf(c: CoupledChoices) {
  const words = WORDS[c.family];
  const from = c.towLength + GAP[c.family];
  const station = (tow: boolean, share: number) =>
    Number((tow ? share * c.towLength : from + share * c.behindLength).toFixed(3));
  const S = {
    alternator: station(true, 0.08),
    bank: station(true, 0.16),
    loads: station(true, 0.22),
    fuse: station(true, 0.16) + POST_LEAD_METRES,
    relay: station(true, 0.34),
    ignition: station(true, 0.42),
    accessoryCharger: station(true, 0.55),
    accessory: station(true, 0.68),
    socket: station(true, 1) - 0.1,
    plug: station(false, 0.02),
    charger: station(false, 0.12),
    behindFuse: station(false, 0.28) - POST_LEAD_METRES,
    behind: station(false, 0.28),
    shore: station(false, 0.42),
    house: station(false, 0.55),
    fridge: station(false, 0.7),
    solar: station(false, 0.8),
    brake: station(false, 0.9),
  };
  const run = (a: number, b: number) => Math.abs(a - b);
  const part = (
    partId: string,
    kind: PartKindId,
    where: number,
    side: Part['side'],
    place: string,
    partName: string,
    note: string,
    params?: Record<string, Parameter>,
    options?: Record<string, string>,
  ): Part =>
    drawPart({
      id: partId,
      kind,
      vehicle: side === 'engine' || place === words.tow ? 'tow' : 'behind',
      station: where,
      side,
      place,
      name: partName,
      note,
      ...(params ? { params } : {}),
      ...(options ? { options } : {}),
    });
  const bank = (
    partId: string,
    where: number,
    side: Part['side'],
    place: string,
    partName: string,
    b: BankChoice,
    soc: number,
    options: Record<string, string> = {},
  ) =>
    part(
      partId,
      'battery-bank',
      where,
      side,
      place,
      partName,
      bankNote(b),
      {
        capacity: assumed(b.capacity, 0.1),
        soc: assumed(soc, 0.12),
        // It starts an engine: the vehicle in front, or the car behind.
        ...(side === 'engine' || (c.family === 'towed-car' && partId === 'coach-bank') ? { cca: startingAmps(b) } : {}),
      },
      { ...bankOptions(b), ...options },
    );

  const car = c.family === 'towed-car';
  const chained = c.link === 'chained';
  // A line laid for a charger is switched where a fridge hangs on it: its element stops with the ignition.
  const fridgeLine = c.fridge && heavy(c.link) && !chained;
  const itself = c.fridgeSelects === 'itself';
  const relayed =
    c.link === 'heavy-line' ||
    (!(c.chargerAt === 'tow' && charges(c.link)) &&
      c.feed === 'ignition' &&
      (fridgeLine || c.link === 'dcdc-pin' || (!charges(c.link) && c.link !== 'diode-lamp')));
  const amps = c.dcdcAmps ?? (c.link === 'dcdc-pin' ? 12 : 40);
  const vanAmps = c.accessoryAmps ?? USUAL_VAN_AMPS;
  const fromHouse = chained || (car && c.source === 'house');
  // A motorhome’s house bank is drawn where the line hangs on it.
  const accessory = fromHouse ? (c.accessory ?? USUAL_HOUSE) : car ? undefined : c.accessory;
  const outVolts = c.family === 'trailer-48' ? 4 : 1;
  // One made for a tow connector's pin is rated by what it takes; any other by what it gives.
  const inAmps = c.link === 'dcdc-pin' ? amps : amps * outVolts * 1.3;
  const lineAmps = (c.link === 'heavy-line' ? 50 : inAmps) + (fridgeLine ? fridgeAmps(c) : 0);
  const lineMetres = 2 * (run(fromHouse ? S.accessory : S.fuse, S.socket) + run(S.plug, S.charger)) + 4;
  const line = heavy(c.link) ? lineGauge(lineAmps, lineMetres) : fromHouse ? '8' : '10';
  const dual = c.link === 'dcdc-dual';
  // A dual-input charger takes the panels itself.
  const solar = c.solar && !dual;
  const feed = fromHouse ? 'accessory-bank' : 'chassis-bank';
  const feedStation = fromHouse ? S.accessory : S.bank;
  const profile = PROFILES[c.behind.chemistry];
  const scaled = (value: number, spread: number) => assumed(value * outVolts, spread * outVolts);
  const enable = c.enable ?? 'ignition';
  // A charger in the vehicle in front gives its bank's volts to the pin; the one behind a 48 V trailer cannot stand there.
  const inFront = c.chargerAt === 'tow' && charges(c.link) && !accessory && c.family !== 'trailer-48';

  const lineRating = heavy(c.link)
    ? fuseAbove((c.link === 'heavy-line' ? 80 : inAmps * 1.25) + (fridgeLine ? fridgeAmps(c) * 1.25 : 0))
    : c.link === 'diode-lamp'
      ? LAMP_LINE.vehicle
      : 30;
  const behindRating = charges(c.link)
    ? fuseAbove(amps * 1.25)
    : heavy(c.link)
      ? lineRating
      : c.link === 'diode-lamp'
        ? LAMP_LINE.behind
        : 30;
  // Its trigger may hang on its feed where no bank hangs there too: that would keep it live. Else it has a wire.
  const loops = itself && fridgeLine && relayed && charges(c.link) && !inFront;
  const afterFuse = relayed ? 'link.coach-stud' : inFront ? 'dcdc.output' : 'link-fuse.load';
  const lineLength = run(relayed || inFront ? S.relay : fromHouse ? S.accessory : S.fuse, S.socket) + 1.15;
  return {
    c,
    words,
    S,
    run,
    part,
    bank,
    car,
    chained,
    fromHouse,
    accessory,
    itself,
    loops,
    relayed,
    amps,
    vanAmps,
    outVolts,
    inAmps,
    line,
    dual,
    solar,
    feed,
    feedStation,
    profile,
    scaled,
    enable,
    inFront,
    lineRating,
    behindRating,
    afterFuse,
    lineLength,
  };
}
