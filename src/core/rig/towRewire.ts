/** Another connector in a plug's place: every use goes to the position that has it, and what finds none is said. */
import { connectorOf, type PositionUse } from '../parts/connectors';
import type { UseId } from '../parts/pinUses';
import type { TowPlug, TowWay } from './towSchema';

export interface Rewired {
  plug: TowPlug;
  /** Uses of the trailer that have no pin on the new connector. */
  left: UseId[];
}

/** Positions on which something may go that has no position of its own there: common practice. */
const STANDS_IN: Partial<Record<PositionUse, readonly PositionUse[]>> = {
  // A constant and a switched pin do for each other; stop lamps burn with the turn lamps only where the vehicle has it so.
  charge: ['switched', 'spare'],
  switched: ['charge', 'spare'],
  brake: ['spare'],
  reverse: ['spare'],
  fog: ['spare'],
  stop: ['spare'],
};

/** The position a use of the trailer belongs on, whatever pin it hung on before. */
const BELONGS: Partial<Record<UseId, PositionUse>> = {
  tail: 'tail',
  left: 'left',
  right: 'right',
  stop: 'stop',
  reverse: 'reverse',
  fog: 'fog',
  brakes: 'brake',
  charger: 'charge',
  bank: 'charge',
  breakaway: 'charge',
  fridge: 'charge',
};

/**
 * A plug as another connector: each position’s feed and uses go to the first free position of the same use, else to one
 * that may stand in for it.
 * @param connector id of the new one, wired in its first convention.
 */
export function rewired(plug: TowPlug, connector: string): Rewired {
  const was = connectorOf(plug.connector);
  const from = (was.conventions.find((c) => c.id === plug.convention) ?? was.conventions[0]!).uses;
  const [to] = connectorOf(connector).conventions;
  const ways = new Map<string, TowWay>();
  const freePin = (use: PositionUse): string | undefined =>
    Object.keys(to!.uses).find((pin) => to!.uses[pin] === use && !ways.has(pin));
  const put = (way: TowWay, uses: readonly (PositionUse | undefined)[]): boolean => {
    const pin = uses.flatMap((u) => (u === undefined ? [] : (freePin(u) ?? [])))[0];
    if (pin !== undefined) ways.set(pin, { ...way, pin });
    return pin !== undefined;
  };
  // What has its own position there goes first, so that nothing stands in its place.
  const homeless = plug.ways.filter((way) => !put(way, [from[way.pin]]));
  const left = homeless.filter((way) => {
    const wants = way.uses.some((u) => u !== 'ground');
    const belongs = way.uses.flatMap((u) => BELONGS[u] ?? []);
    return (
      wants &&
      !put(way, [...belongs, ...(STANDS_IN[from[way.pin]!] ?? []), ...belongs.flatMap((u) => STANDS_IN[u] ?? [])])
    );
  });
  return {
    plug: { ...plug, connector, convention: to!.id, ways: [...ways.values()] },
    left: [...new Set(left.flatMap((way) => way.uses.filter((u) => u !== 'ground')))],
  };
}
