/**
 * A direct-current network: what is connected to what (`Topology`), apart from how much of it there is
 * (`Values`). A topology is analysed once; values change with every operating state, fault and sample.
 *
 * Node 0 is the reference. All units SI.
 */

export interface ResistorBranch {
  id: string;
  a: number;
  b: number;
}

/** An EMF behind a resistance; amps are positive when they flow into `plus` from outside (charging). */
export interface EmfBranch {
  id: string;
  plus: number;
  minus: number;
}

/**
 * Nonlinear two-terminal elements. Each pushes a current into `plus` that never rises with the voltage
 * across it, which is what makes the network's solution unique (see solve.ts).
 */
export interface PortBranch {
  id: string;
  /**
   * `source`: a voltage behind a resistance that never takes current and never gives more than its limit
   * (alternator, charger). `overvoltage`: a battery's polarisation, i = i0·sinh(u/η) with one η for
   * charging and one for discharging. `diode`: plus is the cathode; i = Is·(exp(−u/nVt) − 1), Shockley
   * without its series resistance, which is a resistor of its own. `current`: takes so many amps out of plus
   * into minus whatever the volts: a converter's input, found by the round in operate/converters.ts. `lamp`: a
   * filament by its energy balance (lamp.ts).
   */
  kind: 'source' | 'overvoltage' | 'diode' | 'current' | 'lamp';
  plus: number;
  minus: number;
}

export interface Topology {
  nodeNames: string[];
  resistors: ResistorBranch[];
  emfs: EmfBranch[];
  ports: PortBranch[];
}

/**
 * Numbers per port: source → volts, ohms, limit; overvoltage → i0, η charging, η discharging; diode → Is, n·Vt; current
 * → amps; lamp → rated volts, rated watts.
 */
export const PORT_VALUES = 3;

export interface DeviceValues {
  /** Ω per resistor; Infinity is an open circuit. */
  resistorOhms: Float64Array;
  emfVolts: Float64Array;
  emfOhms: Float64Array;
  /** PORT_VALUES numbers per port; read and written through devices.ts. */
  deviceParams: Float64Array;
}

export function emptyValues(topology: Topology): DeviceValues {
  return {
    resistorOhms: new Float64Array(topology.resistors.length).fill(Infinity),
    emfVolts: new Float64Array(topology.emfs.length),
    emfOhms: new Float64Array(topology.emfs.length).fill(1),
    deviceParams: new Float64Array(topology.ports.length * PORT_VALUES),
  };
}

export function copyValues(from: DeviceValues, to: DeviceValues): void {
  to.resistorOhms.set(from.resistorOhms);
  to.emfVolts.set(from.emfVolts);
  to.emfOhms.set(from.emfOhms);
  to.deviceParams.set(from.deviceParams);
}
