/**
 * What cannot work on a rig that is otherwise a sound document: a bank without a return, a module with no
 * feed. Told, not refused: the rig may really be like that, and then it is the finding.
 */
import { partKind } from '../parts/kinds';
import type { Endpoint, Rig } from './schema';

export interface Unworkable {
  /** Part to mark on the strip. */
  part: string;
  says: string;
  remedy: string;
}

const key = (e: Endpoint) => `${e.part}.${e.terminal}`;

/** Groups of points joined by conductors and bonds; the points of one ground are one. */
function joined(rig: Rig): (a: string, b: string) => boolean {
  const parent = new Map<string, string>();
  const find = (x: string): string => {
    const up = parent.get(x) ?? x;
    if (up === x) return x;
    const root = find(up);
    parent.set(x, root);
    return root;
  };
  const grounds = new Set(rig.grounds.map((g) => g.id));
  const node = (e: Endpoint) => (grounds.has(e.part) ? e.part : key(e));
  for (const { from, to } of [...rig.conductors, ...rig.bonds]) parent.set(find(node(from)), find(node(to)));
  return (a, b) => find(a) === find(b);
}

export function unworkable(rig: Rig): Unworkable[] {
  const list: Unworkable[] = [];
  const touched = new Set([...rig.conductors, ...rig.bonds].flatMap(({ from, to }) => [key(from), key(to)]));
  const same = joined(rig);
  const reference = rig.reference.part;
  for (const part of rig.parts) {
    const kind = partKind(part.kind);
    for (const t of kind.terminals) {
      if (t.optional || touched.has(`${part.id}.${t.id}`)) continue;
      list.push({
        part: part.id,
        says: `${part.name}: nothing is on its ${t.label} terminal, so it cannot do its work.`,
        remedy: `Add the conductor from ${part.name} ${t.label}, or take the part out.`,
      });
    }
    const minus = kind.terminals.find((t) => ['minus', 'ground', 'case'].includes(t.id));
    if (minus && touched.has(`${part.id}.${minus.id}`) && !same(`${part.id}.${minus.id}`, reference))
      list.push({
        part: part.id,
        says:
          `${part.name}: its ${minus.label} does not lead back to ` +
          `${rig.grounds.find((g) => g.id === reference)!.name.toLowerCase()}: it has no return.`,
        remedy: 'Add the return conductor, or the bond between the two frames.',
      });
  }
  for (const ground of rig.grounds)
    if (ground.id !== reference && !same(ground.id, reference))
      list.push({
        part:
          rig.parts.find((p) => rig.conductors.some((c) => c.to.part === ground.id && c.from.part === p.id))?.id ??
          rig.parts[0]?.id ??
          '',
        says: `${ground.name} is joined to no other metal: nothing grounded there has a return.`,
        remedy: 'Add the bond or strap that joins it.',
      });
  return list;
}
