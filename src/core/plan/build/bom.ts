/** What is to be ordered: parts with the figures a counter asks for, cable by the metre, what goes on its ends. */
import { fuseKind, interruptsAt } from '../../parts/fuses';
import { partKind, partOptions } from '../../parts/kinds';
import type { Part, Rig } from '../../rig/schema';
import { gaugeName, type Gauge } from '../../units/wire';
import { endsFor } from '../../size/hardware';
import type { Cut } from './cutList';

export interface BomLine {
  id: string;
  what: string;
  /** Figures one orders by: generic, no maker's number. */
  needs: string;
  quantity: number;
  unit: 'pcs' | 'm';
  group: 'part' | 'cable' | 'ends' | 'protection';
}

/** Metres of cable a tie is put to: about every 150 mm, common practice. */
const TIE_EVERY_METRES = 0.15;
/** Cable is bought with this much over for mistakes. */
const SPARE_FACTOR = 1.1;

/** Figures of a part by its kind: what its parameters say, with their units. */
function needs(part: Part): string {
  const kind = partKind(part.kind);
  const options = partOptions(kind, part);
  const value = (name: string) => part.params[name]?.value ?? kind.params[name]?.default.value;
  const said: string[] = [];
  if (part.note) said.push(part.note);
  const rating = value('rating');
  if (rating !== undefined && !part.note?.includes(`${rating} A`)) said.push(`${rating} A`);
  const fuse = options['type'] !== undefined ? fuseKind(options['type']) : undefined;
  if (fuse) said.push(`${fuse.label}, ${fuse.volts} V, opens into ${interruptsAt(fuse, fuse.volts)} A there`);
  for (const [name, spec] of Object.entries(kind.options ?? {})) {
    if (name === 'type' && fuse) continue;
    const choice = spec.choices.find((c) => c.id === options[name]);
    if (choice) said.push(`${spec.label.toLowerCase()}: ${choice.label}`);
  }
  for (const name of ['inLimit', 'absorb', 'lockout']) {
    const spec = kind.params[name];
    if (spec) said.push(`${spec.label.toLowerCase()} ${value(name)!.toFixed(spec.unit === 'A' ? 0 : 1)} ${spec.unit}`);
  }
  return said.join('; ');
}

/** Parts that are new, or another than before. */
function partLines(from: Rig, to: Rig): BomLine[] {
  const before = new Map(from.parts.map((p) => [p.id, p]));
  const fresh = to.parts.filter((p) => {
    const was = before.get(p.id);
    return !was || was.kind !== p.kind || (was.note !== p.note && needs(was) !== needs(p));
  });
  return fresh.map((p) => ({
    id: p.id,
    what: p.name.toLowerCase().includes(partKind(p.kind).label.toLowerCase())
      ? p.name
      : `${partKind(p.kind).label}: ${p.name}`,
    needs: needs(p),
    quantity: 1,
    unit: 'pcs',
    group: 'part',
  }));
}

/** Cable by gauge and colour. */
function cableLines(cuts: readonly Cut[]): BomLine[] {
  const byGauge = new Map<string, Cut[]>();
  for (const c of cuts)
    byGauge.set(`${c.gauge} ${c.use === 'return' ? 'return' : 'feed'}`, [
      ...(byGauge.get(`${c.gauge} ${c.use === 'return' ? 'return' : 'feed'}`) ?? []),
      c,
    ]);
  return [...byGauge].map(([key, list]) => {
    const [gauge, use] = key.split(' ') as [Gauge, string];
    const metres = Math.ceil(list.reduce((sum, c) => sum + c.length, 0) * SPARE_FACTOR * 10) / 10;
    return {
      id: `cable-${gauge.replace('/', '-')}-${use}`,
      what: `Cable, ${gaugeName(gauge)}, ${use === 'return' ? 'black' : 'red'}`,
      needs: 'fine-stranded copper, 105 °C insulation',
      quantity: metres,
      unit: 'm',
      group: 'cable',
    };
  });
}

/** What goes on the ends, by gauge. */
function endLines(cuts: readonly Cut[]): BomLine[] {
  const lugs = new Map<string, number>();
  for (const c of cuts)
    for (const e of c.ends) lugs.set(`${c.gauge}|${e.made}`, (lugs.get(`${c.gauge}|${e.made}`) ?? 0) + 1);
  return [...lugs].map(([key, count]) => {
    const [gauge, made] = key.split('|') as [Gauge, string];
    return {
      id: `end-${slug(key)}`,
      what: `${made.charAt(0).toUpperCase()}${made.slice(1)}`,
      needs: `for ${gaugeName(gauge)}; heat-shrink ${endsFor(gauge).shrink} mm with adhesive`,
      quantity: count,
      unit: 'pcs',
      group: 'ends',
    };
  });
}

/** What guards the runs. */
function protectionLines(cuts: readonly Cut[]): BomLine[] {
  const heavy = cuts.filter((c) => c.use !== 'control');
  const metres = heavy.reduce((sum, c) => sum + c.length, 0);
  const line = (id: string, what: string, needs: string, quantity: number, unit: BomLine['unit'] = 'pcs'): BomLine => ({
    id,
    what,
    needs,
    quantity,
    unit,
    group: 'protection',
  });
  return [
    line('loom', 'Split loom', 'over every run, split hose at edges', Math.ceil(metres), 'm'),
    line('ties', 'Cable ties', 'UV-proof, one about every 150 mm', Math.ceil(metres / TIE_EVERY_METRES)),
    line('grommets', 'Grommets', 'one for each hole in metal', heavy.filter((c) => c.length > 1).length),
    line('labels', 'Wire labels', 'two a wire, heat-shrink or wrapped', 2 * cuts.length),
  ];
}

/** The bill of materials from one version of a rig to another. @param cuts its cut list. */
export const billOfMaterials = (from: Rig, to: Rig, cuts: readonly Cut[]): BomLine[] =>
  [...partLines(from, to), ...cableLines(cuts), ...endLines(cuts), ...protectionLines(cuts)].filter(
    (l) => l.quantity > 0,
  );

const slug = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 60);
