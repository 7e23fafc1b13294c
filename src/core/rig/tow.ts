/** Whether a described tow interface can be: what its schema cannot say. Apart from the schema, which pages need not load. */
import { connectorOf } from '../parts/connectors';
import { shown, type DocumentIssue } from './issue';
import type { TowInterface } from './towSchema';

/** Ah and state of charge of a usual breakaway battery. From memory. */
export const USUAL_BREAKAWAY = { capacity: 7, soc: 0.85 };

export type { PinSeen, TowInterface, TowPlug, TowWay } from './towSchema';

/** What the schema cannot say: positions that exist, each once, uses the trailer has. */
export function checkTow(tow: TowInterface, at: string): DocumentIssue[] {
  const issues: DocumentIssue[] = [];
  const add = (pointer: string, found: unknown, wanted: string) =>
    issues.push({ pointer: at + pointer, found: shown(found), wanted });
  const ids = new Set<string>();
  const uses = new Map<string, string>();
  tow.plugs.forEach((plug, i) => {
    if (ids.has(plug.id)) add(`/plugs/${i}/id`, plug.id, 'an id of its own');
    ids.add(plug.id);
    const connector = connectorOf(plug.connector);
    if (!connector.conventions.some((c) => c.id === plug.convention))
      add(`/plugs/${i}/convention`, plug.convention, `one of ${connector.conventions.map((c) => c.id).join(', ')}`);
    const taken = new Set<string>();
    plug.ways.forEach((way, j) => {
      const pointer = `/plugs/${i}/ways/${j}`;
      if (!connector.positions.some((p) => p.id === way.pin))
        add(
          `${pointer}/pin`,
          way.pin,
          `a position of the ${connector.label}: ${connector.positions.map((p) => p.id).join(', ')}`,
        );
      if (taken.has(way.pin))
        add(`${pointer}/pin`, way.pin, 'one row for a position: two feeds on one pin fight; say what it gives once');
      taken.add(way.pin);
      const seen = new Set<string>();
      way.seen?.forEach((s, k) => {
        if (seen.has(s.when)) add(`${pointer}/seen/${k}/when`, s.when, 'one reading for a condition: the newer one');
        seen.add(s.when);
        if ((s.loaded === undefined) !== (s.amps === undefined))
          add(
            `${pointer}/seen/${k}/${s.loaded === undefined ? 'loaded' : 'amps'}`,
            undefined,
            'volts under load and the amps of that load together, or neither',
          );
      });
      if (way.uses.includes('ground') && way.uses.length > 1)
        add(`${pointer}/uses`, way.uses, 'ground alone, or what is fed: the two together are a short');
      way.uses.forEach((use) => {
        if (use === 'ground' || use === 'tail') return;
        const first = uses.get(use);
        if (first) add(`${pointer}/uses`, use, `it once: ${first} has it already`);
        else uses.set(use, `position ${way.pin} of ${plug.id}`);
      });
    });
  });
  const need = (use: string, has: boolean, what: string) => {
    if (uses.has(use) && !has) add(`/${what}`, undefined, `${what} described: ${uses.get(use)} hangs on it`);
  };
  need('charger', tow.charger !== undefined, 'charger');
  need('fridge', tow.fridge !== undefined, 'fridge');
  need('brakes', tow.brakes !== undefined, 'brakes');
  need('breakaway', tow.breakaway !== undefined, 'breakaway');
  return issues;
}
