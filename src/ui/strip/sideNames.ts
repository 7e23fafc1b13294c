/** What the two sides of a rig are called on the strip: by what stands there. */
import type { Rig } from '../../core/rig/schema';

const ROLE: Readonly<Record<Rig['vehicles'][number]['role'], string>> = {
  motorhome: 'Motorhome',
  'tow-vehicle': 'Truck',
  trailer: 'Trailer',
  camper: 'Camper',
  'towed-car': 'Towed car',
  van: 'Van',
  bench: 'Bench',
};

/** One vehicle has an engine side and a coach side; of two coupled ones each is a side. In our base vocabulary. */
export function sideNames(rig: Rig): { engine: string; coach: string } {
  if (rig.vehicles[0]!.role === 'bench') return { engine: 'Battery 1', coach: 'Battery 2' };
  const behind = rig.vehicles.find((v) => v.coupledTo !== undefined);
  const pulls = rig.vehicles.find((v) => v.id === behind?.coupledTo);
  return behind && pulls
    ? { engine: ROLE[pulls.role], coach: ROLE[behind.role] }
    : { engine: 'Engine side', coach: 'Coach side' };
}
