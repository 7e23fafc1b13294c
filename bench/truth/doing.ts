/** What somebody does to the rig. */
export interface Doing {
  key: boolean;
  rpm: 'off' | 'idle' | 'fast-idle';
  boost: boolean;
  mains: boolean;
  sun: boolean;
  coupled: boolean;
  disconnect: boolean;
}

export const PARKED: Doing = {
  key: false,
  rpm: 'off',
  boost: false,
  mains: false,
  sun: false,
  coupled: true,
  disconnect: true,
};
