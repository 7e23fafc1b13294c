/**
 * What a person does to a parked rig: key, engine, boost switch, shore cord. An operating state fixes these
 * and the time since (see operate/states.ts). No driving: the keypad is never offered on the road.
 */
export interface OperatingInputs {
  key: boolean;
  engine: 'off' | 'idle' | 'fast-idle';
  boost: boolean;
  shore: boolean;
  /** The rig's own generator runs and feeds the charger. */
  generator: boolean;
  /** False while somebody holds the coach disconnect open. */
  disconnect: boolean;
  /** Solar panels covered or their fuse out. */
  covered: boolean;
  /** Seconds since the state was entered. */
  dwell: number;
}

/** Names by which a part can say "this contact is closed when …". */
export type InputSwitch = 'key' | 'boost' | 'shore' | 'disconnect';
