/** Where everything sits in a motorhome, and what its choices ask for. */
import { METRES_PER_FOOT } from '../../units/preferences';
import { assumed, type Parameter } from '../../units/parameter';
import type { Part } from '../schema';
import type { BankChoice, MotorhomeChoices } from './choicesSchema';
import { bankNote, bankOptions, drawPart, fuseAbove, gaugeCarrying, startingAmps } from './drawing';
import { linkParts, USUAL_DCDC_AMPS } from './motorhomeLinks';
import { maintainerParts } from './motorhomeMaintainer';
import { PLACES, type PartMaker, type PlaceName, type Runner } from './motorhomePlaces';

/** What every section of the drawing is drawn with. */
export type Draft = ReturnType<typeof draftOf>;

// eslint-disable-next-line max-lines-per-function -- a table: where each thing stands, what each choice makes of it
export function draftOf(c: MotorhomeChoices) {
  const volts = c.nominalVolts / 12;
  const shares = PLACES[c.engineAt];
  const station = (where: PlaceName) => Number((shares[where] * c.length).toFixed(3));
  // Cables follow frames and walls: longer than straight by what somebody saw of the route.
  const run: Runner = (a, b) => Math.abs(station(a) - station(b)) * (1 + (c.detour ?? 0));
  const part: PartMaker = (partId, kind, where, side, place, partName, note, params = {}, options) =>
    drawPart({
      id: partId,
      kind,
      vehicle: 'coach',
      station: station(where),
      side,
      place,
      name: partName,
      note,
      params,
      ...(options ? { options } : {}),
    });
  const scaled = (value: number, spread: number): Parameter => assumed(value * volts, spread * volts);
  const bank = (
    partId: string,
    where: PlaceName,
    side: Part['side'],
    place: string,
    partName: string,
    b: BankChoice,
    soc: Parameter,
  ) =>
    part(
      partId,
      'battery-bank',
      where,
      side,
      place,
      partName,
      bankNote(b),
      { capacity: assumed(b.capacity, 0.1), soc, ...(side === 'engine' ? { cca: startingAmps(b) } : {}) },
      bankOptions(b),
    );
  const diode = c.link === 'diode';
  // A charger in place of the link, and nothing beside it.
  const alone = c.link === 'dcdc' || c.link === 'dcdc-dual';
  const solenoid = c.link !== 'diode' && !alone;
  // A dual-input charger takes the panels itself.
  const solar = c.solar && c.link !== 'dcdc-dual';
  const hasDisconnect = c.disconnect !== 'none';
  const houseBus = hasDisconnect ? 'disconnect.house' : 'coach-bank.plus';
  const link = linkParts(c, part, run);
  const boost = c.boost && solenoid;
  const chargerName =
    c.charger === 'inverter-charger' ? 'Inverter-charger' : c.charger === 'converter' ? 'Converter' : 'Shore charger';
  const absorb = c.coach.chemistry === 'gel' ? 14.1 : c.charger === 'converter' ? 13.6 : 14.3;

  const linkRating = alone && !c.bypass ? fuseAbove(1.5 * (c.dcdcAmps ?? USUAL_DCDC_AMPS) * 1.25) : 150;
  const chargerParams = {
    setPoint: scaled(absorb, 0.12),
    limit: assumed(c.chargerAmps, 0.1),
    float: scaled(c.coach.chemistry === 'lfp' ? 13.5 : 13.6, 0.08),
    tail: assumed(Number((0.03 * c.coach.capacity).toFixed(1)), 0.3),
  };

  const point = (where: PlaceName, feet: number) => Number((station(where) + feet * METRES_PER_FOOT).toFixed(3));
  return {
    c,
    station,
    run,
    dashAtEngine: c.engineAt === 'front',
    part,
    scaled,
    bank,
    diode,
    solenoid,
    alone,
    solar,
    hasDisconnect,
    houseBus,
    link,
    maintainer: maintainerParts(c, part, run, volts),
    boost,
    chargerName,
    linkRating,
    chargerParams,
    volts,
    point,
    alternatorGauge: gaugeCarrying(Math.round(c.alternatorAmps * 0.88), '2'),
    chargerGaugeHere: gaugeCarrying(c.chargerAmps, '6'),
  };
}
