/** The keys of a job, as a table: what is pressed, what it does, what the sheet of keys says of it. */
import type { Answers, Entries, Measuring, Place } from './jobPage';
import { STATIONS, type Station } from './stations';
import { STATION_REGISTRY } from './stationRegistry';

export interface KeyContext {
  measuring: Measuring;
  answers: Answers;
  place: Place;
  entries: Entries;
  typed: string;
  millis: boolean;
  /** What is typed is a value: keeping it is possible. */
  keepable: boolean;
  keep(): void;
  toggleTheme(): void;
  toggleStrip(): void;
  showKeys(): void;
  /** The measurement so many further down the sheet. */
  step(by: number): void;
}

export interface Hotkey {
  keys: readonly string[];
  /** On the sheet, where not the keys themselves. */
  shown?: string;
  does: string;
  /**
   * Not where charts and legs have keys of their own. Elsewhere a reading may be typed at any station: who has pressed
   * “Measure” types before the sheet has come.
   */
  notAtCharts?: true;
  run(context: KeyContext, key: string): void;
}

const digit: Hotkey = {
  keys: ['0', '1', '2', '3', '4', '5', '6', '7', '8', '9'],
  shown: '0–9',
  does: 'type the reading',
  notAtCharts: true,
  run: ({ measuring, typed }, key) => measuring.setTyped((typed + key).slice(0, 12)),
};
const point: Hotkey = {
  keys: ['.', ','],
  does: 'decimal point, either way',
  notAtCharts: true,
  run: ({ measuring, typed }, key) => {
    if (!/[.,]/.test(typed)) measuring.setTyped(typed + key);
  },
};
const minus: Hotkey = {
  keys: ['-'],
  shown: '−',
  does: 'turn the sign over',
  notAtCharts: true,
  run: ({ measuring, typed }) => measuring.setTyped(typed.startsWith('-') ? typed.slice(1) : `-${typed}`),
};
const erase: Hotkey = {
  keys: ['Backspace'],
  does: 'delete the last digit',
  notAtCharts: true,
  run: ({ measuring, typed }) => measuring.setTyped(typed.slice(0, -1)),
};
const enter: Hotkey = {
  keys: ['Enter'],
  does: 'keep what is typed; with nothing typed, do the next action',
  notAtCharts: true,
  run: ({ place, typed, keepable, keep }) => {
    if (typed === '') place.act();
    else if (keepable) keep();
  },
};
const arrows: Hotkey = {
  keys: ['ArrowUp', 'ArrowDown'],
  shown: '↑ ↓',
  does: 'previous, next probe',
  notAtCharts: true,
  run: ({ step }, key) => step(key === 'ArrowDown' ? 1 : -1),
};

const stationKeys = (): Hotkey[] =>
  STATIONS.map((id: Station) => ({
    keys: [STATION_REGISTRY[id].hotkey],
    does: STATION_REGISTRY[id].name,
    run: ({ place }) => place.go(id),
  }));

/** Every key, in the order of the sheet. */
export const HOTKEYS: readonly Hotkey[] = [
  digit,
  point,
  minus,
  erase,
  enter,
  arrows,
  { keys: ['m'], does: 'millivolts or volts', run: ({ measuring, millis }) => measuring.setMillis(!millis) },
  { keys: ['s'], does: 'what the rig is doing', run: ({ measuring }) => measuring.openStates() },
  { keys: ['l'], does: 'seen, heard, tried', run: ({ answers }) => answers.openSeen() },
  { keys: ['u'], shown: 'u or Ctrl z', does: 'undo the last thing you did', run: ({ entries }) => entries.undo() },
  { keys: ['t'], does: 'strip tall or slim', run: ({ toggleStrip }) => toggleStrip() },
  { keys: ['d'], does: 'dark or light', run: ({ toggleTheme }) => toggleTheme() },
  { keys: ['?'], does: 'these keys', run: ({ showKeys }) => showKeys() },
  ...stationKeys(),
];

/** What a key does; nothing where it does nothing there. @param charts whether the station has charts with keys. */
export const hotkeyFor = (key: string, charts: boolean): Hotkey | undefined =>
  HOTKEYS.find((h) => h.keys.includes(key) && !(charts && h.notAtCharts));

/** A line of the sheet of keys: what is pressed, what it does. */
export const keySheet = (): { shown: string; does: string }[] =>
  HOTKEYS.map((h) => ({ shown: h.shown ?? h.keys.join(' '), does: h.does }));
