/** The stations of a job in working order: ids only, so that anything may name one. */
export const STATIONS = [
  'intake',
  'rig',
  'readings',
  'fault',
  'options',
  'sizing',
  'build',
  'prove',
  'logbook',
] as const;
export type Station = (typeof STATIONS)[number];
export const isStation = (name: string | null | undefined): name is Station =>
  (STATIONS as readonly string[]).includes(name ?? '');
