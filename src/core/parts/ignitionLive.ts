/** When the wire that tells a link or a charger to work is live. Common practice. */
export const IGNITION_LIVE = [
  { id: 'run', label: 'With the key in run' },
  { id: 'engine', label: 'Only while the engine runs' },
] as const;

export type IgnitionLive = (typeof IGNITION_LIVE)[number]['id'];
