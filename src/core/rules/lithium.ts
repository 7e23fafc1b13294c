/** Links that go by volts beside a lithium bank, which rests where lead-acid is charging. Common practice. */
import { partValue } from '../rig/value';
import { chemistryOf, restVolts } from '../parts/chemistry';
import { is, nominalOf, partKind, partOptions, traitsOf } from '../parts/kinds';
import type { Part, Rig } from '../rig/schema';

/** Whether a part links the banks by volts and lets go by them; a charger that starts by volts passes one way only. */
export const closesByVolts = (part: Part): boolean => is(part, 'byVolts') && !is(part, 'charger');
/** Charge at which a bank's rest is taken: the flat middle. */
const RESTS_AT_CHARGE = 0.4;

/** Each such link with each lithium bank whose rest lies above what the link lets go at, V. */
export function voltsLinksOnLithium(rig: Rig): { link: Part; bank: Part; openAt: number; rests: number }[] {
  const banks = rig.parts.filter((p) => is(p, 'battery') && partOptions(partKind(p.kind), p)['chemistry'] === 'lfp');
  return rig.parts.filter(closesByVolts).flatMap((link) =>
    banks.flatMap((bank) => {
      const openAt = partValue(link, traitsOf(link).byVolts!.opens);
      const rests =
        (restVolts(RESTS_AT_CHARGE, chemistryOf('lfp')) *
          nominalOf(
            bank,
            rig.vehicles.find((v) => v.id === bank.vehicle)!,
          )) /
        12;
      return openAt < rests ? [{ link, bank, openAt, rests }] : [];
    }),
  );
}
