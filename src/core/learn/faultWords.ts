/** A fault of a table of cases in words. */
import { METAL_FAULTS } from '../diagnose/catalogue/metal';
import { NOTHING_WRONG } from '../diagnose/catalogue/nothingWrong';
import { NOT_ON_LIST } from '../diagnose/catalogue/notOnList';
import { PART_KINDS } from '../parts/kinds';

const SIDES: Readonly<Record<string, string>> = { engine: 'chassis side', coach: 'coach side' };

/** @param key as `faultKey` makes it; what no catalogue knows any more is said as it stands */
export function faultWords(key: string): string {
  for (const plain of [NOTHING_WRONG, NOT_ON_LIST]) if (key === plain.id) return plain.name;
  const [where, ...rest] = key.split('.');
  const id = rest.join('.');
  if (where === 'metal') return METAL_FAULTS.find((f) => f.id === id)?.name.replaceAll('{owner}', 'Joint') ?? key;
  const [trait, side] = where!.split('@');
  for (const kind of PART_KINDS.values()) {
    if (!(trait! in kind.traits)) continue;
    const row = kind.faults.find((f) => f.id === id && (f.side === undefined || side === undefined || f.side === side));
    if (!row) continue;
    const named = row.name.replaceAll('{owner}', kind.label);
    return side && SIDES[side] && row.name.includes('{owner}') ? `${named}, ${SIDES[side]}` : named;
  }
  return key;
}
