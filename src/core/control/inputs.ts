/**
 * What a person does to a rig: key, engine, boost switch, shore cord. An operating state fixes these and the
 * time since (see operate/states.ts). The road exists in simulation only: the keypad is never offered there.
 */
export interface OperatingInputs {
  key: boolean;
  engine: 'off' | 'idle' | 'fast-idle' | 'road';
  boost: boolean;
  shore: boolean;
  /** The rig's own generator runs and feeds the charger. */
  generator: boolean;
  /** False while somebody holds the coach disconnect open. */
  disconnect: boolean;
  /** Solar panels covered or their fuse out. */
  covered: boolean;
  /** The tow connector is plugged in. */
  coupled: boolean;
  /** Marker lights are on. */
  lamps: boolean;
  /** Seconds since the state was entered. */
  dwell: number;
  /** What only a simulation knows, hour by hour; absent while one measures. */
  leg?: LegInputs;
}

export interface LegInputs {
  /** Air outside, °C. */
  celsius: number;
  /** Share of full sun on the panels, 0 to 1. */
  sun: number;
  /** What the living space takes at nominal volts, A: its mean, and with all that comes and goes on at once. */
  houseAmps: number;
  housePeakAmps: number;
  /** A three-way fridge is set to 12 V. */
  fridgeOnBattery: boolean;
  /** Charging of the bank behind is held off by hand. */
  held: boolean;
}

/** Names by which a part can say "this contact is closed when …". */
export type InputSwitch = 'key' | 'boost' | 'shore' | 'disconnect' | 'coupled' | 'lamps';
