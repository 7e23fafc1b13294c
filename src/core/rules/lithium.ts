/** Links that go by volts beside a lithium bank, which rests where lead-acid is charging. Common practice. */
import { chemistryOf, restVolts } from '../parts/chemistry';
import { nominalOf, partKind, partOptions } from '../parts/kinds';
import type { Part, Rig } from '../rig/schema';

/** Kinds that close by volts and let go by them. */
export const BY_VOLTS = ['voltage-link-module', 'bidirectional-module', 'voltage-relay'] as const;
/** Charge at which a bank's rest is taken: the flat middle. */
const RESTS_AT = 0.4;

/** Each such link with each lithium bank whose rest lies above what the link lets go at, V. */
export function voltsLinksOnLithium(rig: Rig): { link: Part; bank: Part; openAt: number; rests: number }[] {
  const banks = rig.parts.filter(
    (p) => p.kind === 'battery-bank' && partOptions(partKind(p.kind), p)['chemistry'] === 'lfp',
  );
  return rig.parts
    .filter((p) => (BY_VOLTS as readonly string[]).includes(p.kind))
    .flatMap((link) =>
      banks.flatMap((bank) => {
        const openAt = link.params['openAt']?.value ?? partKind(link.kind).params['openAt']!.default.value;
        const rests =
          (restVolts(RESTS_AT, chemistryOf('lfp')) *
            nominalOf(
              bank,
              rig.vehicles.find((v) => v.id === bank.vehicle)!,
            )) /
          12;
        return openAt < rests ? [{ link, bank, openAt, rests }] : [];
      }),
    );
}
