/** What a coupled rig is doing while its tow plug is judged. */
import type { Driving } from '../../parts/pinUses';

export interface TowSituation extends Driving {
  id: 'overnight' | 'stopped' | 'road' | 'braking';
  label: string;
  hours: number;
}

/** Parked a night, just stopped, on the road with lamps on, braking there. */
export const TOW_SITUATIONS: readonly TowSituation[] = [
  { id: 'road', label: 'on the road', key: true, engine: true, lamps: true, braking: false, hours: 4 },
  { id: 'braking', label: 'braking', key: true, engine: true, lamps: true, braking: true, hours: 0 },
  { id: 'stopped', label: 'stopped 20 minutes', key: false, engine: false, lamps: false, braking: false, hours: 1 / 3 },
  { id: 'overnight', label: 'parked overnight', key: false, engine: false, lamps: false, braking: false, hours: 10 },
];
