/** Outlines of the vehicles a rig is made of, from where each begins and ends on the drawing. */
import type { Rig } from '../../core/rig/schema';
import { STRIP, type Shell } from './geometry';

/** Where each vehicle stands: a coupled one begins a little before its first part. */
export function shellsOf(rig: Rig): Shell[] {
  return rig.vehicles.map((v) => {
    if (v.coupledTo === undefined) return { id: v.id, role: v.role, from: 0, to: v.length };
    const first = Math.min(
      ...rig.parts.filter((p) => p.vehicle === v.id).map((p) => p.station),
      ...rig.grounds.filter((g) => g.vehicle === v.id).flatMap((g) => g.points.map((p) => p.station)),
    );
    const from = Number.isFinite(first) ? first - 0.02 * v.length : v.length;
    return { id: v.id, role: v.role, from, to: from + v.length };
  });
}

const { rail, railHeight, roof } = STRIP;
const floor = rail + railHeight;

/** A motorhome: snub nose, long box. */
const box = (a: number, b: number): string =>
  `M${a} ${floor - 8}V198Q${a} 176 ${a + 4} 158L${a + 13} 118Q${a + 16} ${roof} ` +
  `${a + 30} ${roof}H${b - 16}Q${b - 2} ${roof} ${b} ${roof + 14}V${floor - 6}Q${b} ` +
  `${floor} ${b - 6} ${floor}H${a + 8}Q${a} ${floor} ${a} ${floor - 8}Z`;

/** A bonnet, a cab, and behind it a bed or a tail. */
function bonneted(a: number, b: number, bed: number): string {
  const w = b - a;
  const cab = a + 0.34 * w;
  const back = a + (1 - bed) * w;
  const low = roof + 62;
  return (
    `M${a} ${floor - 8}V${low + 18}Q${a} ${low + 4} ${a + 14} ${low + 2}L${cab - 14} ` +
    `${low - 6}L${cab + 22} ${roof + 8}Q${cab + 26} ${roof} ${cab + 38} ${roof}H${back - 10}Q${back} ` +
    `${roof} ${back} ${roof + 12}${bed > 0 ? `V${low}H${b - 6}Q${b} ${low} ${b} ${low + 6}` : ''}V${floor - 6}Q${b} ` +
    `${floor} ${b - 6} ${floor}H${a + 8}Q${a} ${floor} ${a} ${floor - 8}Z`
  );
}

/** A box on its own axle. */
const trailer = (a: number, b: number): string =>
  `M${a} ${floor}V${roof + 34}Q${a} ${roof} ${a + 30} ${roof}H${b - 16}Q${b} ${roof} ${b} ${roof + 16}V${floor}Z`;

/** A camper on a bed: its front hangs over the cab. */
const camper = (a: number, b: number): string =>
  `M${a} ${roof + 56}V${roof + 12}Q${a} ${roof} ${a + 14} ${roof}H${b - 14}Q${b} ` +
  `${roof} ${b} ${roof + 14}V${floor}H${a + 34}V${roof + 56}Z`;

/** A bench top on its two legs. */
const bench = (a: number, b: number): string =>
  `M${a} ${floor}V${roof + 8}Q${a} ${roof} ${a + 8} ${roof}H${b - 8}Q${b} ${roof} ${b} ${roof + 8}V${floor}Z`;

/** The outline of a shell between two x. */
export function outline(role: Shell['role'], a: number, b: number): string {
  switch (role) {
    case 'motorhome':
      return box(a, b);
    case 'tow-vehicle':
      return bonneted(a, b, 0.3);
    case 'van':
    case 'towed-car':
      return bonneted(a, b, 0);
    case 'trailer':
      return trailer(a, b);
    case 'camper':
      return camper(a, b);
    case 'bench':
      return bench(a, b);
  }
}

/** The coupling between one vehicle and the next, drawn at the height of the frames. */
export const coupling = (role: Shell['role'], a: number, b: number): string | undefined => {
  if (role === 'camper' || b - a < 6) return undefined;
  const y = rail + railHeight / 2;
  return role === 'towed-car' ? `M${a} ${y}L${b} ${y - 5}M${a} ${y}L${b} ${y + 5}` : `M${a} ${y}H${b}`;
};
