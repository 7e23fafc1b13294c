/**
 * CAN log text with RV-C frames of DC sources, as the common command-line loggers write it. Encoding from
 * memory: DC source status 1 (DGN 1FFFDh): instance, priority, volts in 0.05 V, amps in 1 mA from −2,000,000 A;
 * status 2 (1FFFCh): instance, priority, temperature in 1/32 °C from −273 °C, charge in 0.5 %. Little-endian;
 * all ones means "not available".
 */
import { SeriesBuilder, type LogRole, type LogSeries } from './series';

const STATUS_1 = 0x1fffd;
const STATUS_2 = 0x1fffc;
/** Instances by convention, from memory: 1 is the main house bank, 2 the chassis start battery. */
export const HOUSE_INSTANCE = 1;
export const CHASSIS_INSTANCE = 2;

const COLUMNS: readonly { role: LogRole; name: string; instance: number; of: 'volts' | 'amps' | 'celsius' | 'soc' }[] =
  [
    { role: 'coach-volts', name: 'DC source 1, volts', instance: HOUSE_INSTANCE, of: 'volts' },
    { role: 'coach-amps', name: 'DC source 1, amps', instance: HOUSE_INSTANCE, of: 'amps' },
    { role: 'chassis-volts', name: 'DC source 2, volts', instance: CHASSIS_INSTANCE, of: 'volts' },
    { role: 'chassis-amps', name: 'DC source 2, amps', instance: CHASSIS_INSTANCE, of: 'amps' },
    { role: 'celsius', name: 'DC source 1, temperature', instance: HOUSE_INSTANCE, of: 'celsius' },
    { role: 'soc', name: 'DC source 1, charge', instance: HOUSE_INSTANCE, of: 'soc' },
  ];

// (1436509052.249713) can0 19FFFD44#0164F50100943577   or   1436509052.249713 can0 19FFFD44 [8] 01 64 …
const LINE = /^\s*\(?(\d+(?:\.\d+)?)\)?\s+(?:\S+\s+)?([0-9A-Fa-f]{8})(?:#|\s+\[\d\]\s+)([0-9A-Fa-f ]{0,24})\s*$/;

export interface DcFrame {
  instance: number;
  volts?: number;
  amps?: number;
  celsius?: number;
  soc?: number;
}

/** A frame's meaning; undefined where it is none of ours. */
export function decodeFrame(id: number, data: Uint8Array): DcFrame | undefined {
  const dgn = (id >>> 8) & 0x1ffff;
  if (dgn === STATUS_1 && data.length >= 8) {
    const volts = data[2]! | (data[3]! << 8);
    const amps = (data[4]! | (data[5]! << 8) | (data[6]! << 16) | (data[7]! << 24)) >>> 0;
    return {
      instance: data[0]!,
      ...(volts < 0xfffd ? { volts: volts * 0.05 } : {}),
      ...(amps < 0xfffffffd ? { amps: amps / 1000 - 2_000_000 } : {}),
    };
  }
  if (dgn === STATUS_2 && data.length >= 5) {
    const celsius = data[2]! | (data[3]! << 8);
    return {
      instance: data[0]!,
      ...(celsius < 0xfffd ? { celsius: celsius / 32 - 273 } : {}),
      ...(data[4]! < 0xfd ? { soc: data[4]! / 2 } : {}),
    };
  }
  return undefined;
}

/** A frame as the bus carries it: the inverse of `decodeFrame`, for tests and the demo. */
export function encodeFrame(frame: DcFrame, source = 0x44): { id: number; data: Uint8Array } {
  const one = frame.volts !== undefined || frame.amps !== undefined;
  const data = new Uint8Array(8).fill(0xff);
  data[0] = frame.instance;
  data[1] = 100;
  const put = (at: number, bytes: number, value: number) => {
    for (let k = 0; k < bytes; k++) data[at + k] = Math.floor(value / 256 ** k) % 256;
  };
  if (one) {
    if (frame.volts !== undefined) put(2, 2, Math.round(frame.volts / 0.05));
    if (frame.amps !== undefined) put(4, 4, Math.round((frame.amps + 2_000_000) * 1000));
  } else {
    if (frame.celsius !== undefined) put(2, 2, Math.round((frame.celsius + 273) * 32));
    if (frame.soc !== undefined) put(4, 1, Math.round(frame.soc * 2));
  }
  return { id: ((6 << 26) | ((one ? STATUS_1 : STATUS_2) << 8) | source) >>> 0, data };
}

/** Whether a text begins like such a log. */
export const looksLikeCan = (head: string): boolean =>
  head
    .split(/\r?\n/)
    .slice(0, 40)
    .filter((l) => LINE.test(l)).length >= 3;

/** Lines into a series: each frame carries what the others said last. */
export class CanLogReader {
  private readonly builder = new SeriesBuilder(COLUMNS);
  private readonly now = new Float64Array(COLUMNS.length).fill(NaN);
  private line = 0;
  private last = -Infinity;

  push(lines: readonly string[]): void {
    for (const text of lines) {
      this.line++;
      if (text.trim() === '') continue;
      const m = LINE.exec(text);
      if (!m) {
        this.builder.drop();
        this.builder.problem({
          kind: 'frame',
          line: this.line,
          found: text.trim().slice(0, 40),
          wanted: 'a time, an identifier of eight digits, and data: the line is left out',
        });
        continue;
      }
      const hex = m[3]!.replace(/ /g, '');
      const data = Uint8Array.from({ length: hex.length >> 1 }, (_, k) =>
        Number.parseInt(hex.slice(2 * k, 2 * k + 2), 16),
      );
      const frame = decodeFrame(Number.parseInt(m[2]!, 16), data);
      if (!frame) continue;
      COLUMNS.forEach((c, k) => {
        const value = frame.instance === c.instance ? frame[c.of] : undefined;
        if (value !== undefined) this.now[k] = value;
      });
      const t = Number(m[1]);
      // Frames of one cycle follow within milliseconds: one sample of them is enough.
      if (t - this.last >= 0.2 || t < this.last) {
        this.builder.add(this.line, t, this.now);
        if (t > this.last) this.last = t;
      }
    }
  }

  finish(): LogSeries {
    const all = this.builder.finish();
    return { ...all, channels: all.channels.filter((c) => c.values.some((v) => !Number.isNaN(v))) };
  }
}
