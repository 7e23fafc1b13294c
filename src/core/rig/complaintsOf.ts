/** The usual complaints about a rig, in words of what it has: its bank's own name, its charger where that is the link. */
import { COMPLAINT_OF, COMPLAINTS, NOT_OF_A_TOWED_CAR, OF_A_TOWED_CAR, type Complaint } from '../parts/complaints';
import type { Rig } from './schema';
import { has, houseBankOf, partWith, partsWith } from './value';

type Described = Pick<Rig, 'parts' | 'vehicles'>;

const isCoupled = (rig: Described): boolean => rig.vehicles.some((v) => v.coupledTo !== undefined);

/** Which of them can be of a rig: one about a fridge only where there is one. */
export const complaintsOf = (rig: Described): Complaint[] =>
  (Object.keys(COMPLAINTS) as Complaint[]).filter((c) => {
    const of = COMPLAINT_OF[c];
    if (of && !of.some((trait) => has(rig, trait))) return false;
    if (has(rig, 'towedCar') && NOT_OF_A_TOWED_CAR.includes(c)) return false;
    return c !== 'chassis-not-on-shore' || (!isCoupled(rig) && has(rig, 'mainsCharger'));
  });

/** What the owner of this rig would say, in our base vocabulary. */
export function complaintSays(complaint: Complaint, rig: Rig): string {
  const car = has(rig, 'towedCar') ? OF_A_TOWED_CAR[complaint] : undefined;
  if (car) return car;
  const bank = houseBankOf(rig)?.name ?? 'Coach bank';
  const link = partWith(rig, 'solenoid') ?? partsWith(rig, 'charger')[0];
  const pair = isCoupled(rig) ? 'batteries' : 'banks';
  return COMPLAINTS[complaint]
    .replace('Coach bank', bank)
    .replace('banks', pair)
    .replace('Isolator', link?.name ?? 'Link')
    .replace('The link clicks', has(rig, 'solenoid') || !link ? 'The link clicks' : `${link.name} switches`);
}
