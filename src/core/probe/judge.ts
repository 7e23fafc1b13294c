/** A reading against the band a healthy rig would give it. Apart from bands.ts, so that a page can judge without carrying the solver. */

export interface Band {
  lo: number;
  hi: number;
  /** With every assumption as stated. */
  nominal: number;
  unit: 'V' | 'A';
}

export type BandPosition = 'ok' | 'low' | 'high';

/** Against the band: below it, above it, in it. */
export const judge = (value: number, band: Band): BandPosition =>
  value < band.lo ? 'low' : value > band.hi ? 'high' : 'ok';
