/**
 * The numbers of each nonlinear element by name. They stand packed in one array, PORT_VALUES a port; nobody outside
 * this room counts where.
 */
import { PORT_VALUES, type PortBranch, type DeviceValues } from './network';

export type DeviceKind = PortBranch['kind'];

/** The numbers of a device, in the order they are packed. Units SI: V, Ω, A, W. */
export const DEVICE_PARAMS = {
  source: ['volts', 'ohms', 'limit'],
  overvoltage: ['i0', 'charging', 'discharging'],
  diode: ['saturation', 'emission'],
  current: ['amps'],
  lamp: ['volts', 'watts'],
} as const satisfies Readonly<Record<DeviceKind, readonly string[]>>;

export type DeviceParamName<K extends DeviceKind> = (typeof DEVICE_PARAMS)[K][number];

/** Where a number of a port stands in `Values.deviceParams`. */
export const deviceIndex = <K extends DeviceKind>(kind: K, port: number, name: DeviceParamName<K>): number =>
  port * PORT_VALUES + (DEVICE_PARAMS[kind] as readonly string[]).indexOf(name);

/** One number of one kind of device, read and written in a set of values. */
export interface DeviceParam {
  get(values: DeviceValues, port: number): number;
  set(values: DeviceValues, port: number, value: number): void;
}

const at = (offset: number): DeviceParam => ({
  get: (values, port) => values.deviceParams[port * PORT_VALUES + offset]!,
  set: (values, port, value) => {
    values.deviceParams[port * PORT_VALUES + offset] = value;
  },
});

/** A voltage behind a resistance that gives up to a limit: alternator, charger, a converter's output. */
export const SOURCE = { volts: at(0), ohms: at(1), limit: at(2) } as const;
/** A battery's polarisation. */
export const OVERVOLTAGE = { i0: at(0), charging: at(1), discharging: at(2) } as const;
/** Amps taken whatever the volts: a converter's input. */
export const CURRENT = { amps: at(0) } as const;
