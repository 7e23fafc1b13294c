/** Where things sit in a motorhome, and what its parts are drawn with. */
import type { PartKindId } from '../../parts/kinds';
import type { Parameter } from '../../units/parameter';
import type { Conductor, Part } from '../schema';

/** Where things sit, as shares of the length from the nose; the front engine mirrors the engine side. */
export const PLACES = {
  rear: {
    ignition: 2 / 36,
    boost: 4 / 36,
    switch: 5 / 36,
    house: 12 / 36,
    solar: 9 / 36,
    generator: 7 / 36,
    charger: 13 / 36,
    charger2: 10.5 / 36,
    disconnect: 15 / 36,
    coach: 17 / 36,
    shunt: 18.6 / 36,
    module: 28 / 36,
    link: 29 / 36,
    fuse: 31.4 / 36,
    chassis: 32 / 36,
    loads: 33 / 36,
    alternator: 34.5 / 36,
  },
  front: {
    alternator: 2 / 36,
    loads: 3.6 / 36,
    chassis: 5 / 36,
    fuse: 5.6 / 36,
    link: 7.5 / 36,
    module: 9 / 36,
    ignition: 11 / 36,
    boost: 12 / 36,
    switch: 13 / 36,
    coach: 20 / 36,
    shunt: 18.2 / 36,
    disconnect: 22 / 36,
    charger: 25 / 36,
    charger2: 29 / 36,
    house: 27 / 36,
    solar: 30 / 36,
    generator: 33 / 36,
  },
} as const;

/** What a link adds to the drawing. */
export interface LinkDrawing {
  parts: Part[];
  conductors: Conductor[];
  probes: [string, string][];
}

export type PlaceName = keyof (typeof PLACES)['rear'];
export type Runner = (a: PlaceName, b: PlaceName) => number;
export type PartMaker = (
  id: string,
  kind: PartKindId,
  where: PlaceName,
  side: Part['side'],
  place: string,
  name: string,
  note: string,
  params?: Record<string, Parameter>,
  options?: Record<string, string>,
) => Part;
