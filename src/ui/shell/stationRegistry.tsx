'use client';
/**
 * The stations: name, key, screen, how tall the strip stands over it, whose slip it has and what it still lacks. A new
 * one is an id in `stations.ts` and an entry here; what is forgotten does not compile.
 */
import type { ComponentType } from 'react';
import { madeBy, standingChoice, type Job } from '../../core/job/job';
import { ReadingSheet } from '../readings/ReadingSheet';
import { lazyPart } from '../lazyPart';
import { STATION_MARKS, type Mark, type MarkInput } from './stationMarks';
import type { Station } from './stations';

export type StripHeight = 'full' | 'slim';

export interface StationEntry {
  name: string;
  /** Opens it from anywhere in the job. */
  hotkey: string;
  screen: ComponentType;
  /** As it opens; one key, one press changes it. Full where one measures or places things. */
  strip: StripHeight;
  /** Whether it brings a slip of its own: what is next there is not the next reading. */
  ownSlip(job: Job): boolean;
  /** Whether readings are typed there. */
  keypad(job: Job): boolean;
  /** Whether legs and charts have keys of their own there. */
  chartKeys: boolean;
  mark(input: MarkInput): Mark;
}

const never = () => false;
const always = () => true;
// Those not on the way to the first reading come when they are opened.

export const STATION_REGISTRY: Readonly<Record<Station, StationEntry>> = {
  intake: {
    name: 'Intake',
    hotkey: 'i',
    screen: lazyPart(() => import('../intake/IntakeStation'), 'IntakeStation'),
    strip: 'slim',
    ownSlip: never,
    keypad: never,
    chartKeys: false,
    mark: STATION_MARKS.intake,
  },
  rig: {
    name: 'Rig',
    hotkey: 'g',
    screen: lazyPart(() => import('../rig/RigStation'), 'RigStation'),
    strip: 'full',
    ownSlip: never,
    keypad: never,
    chartKeys: false,
    mark: STATION_MARKS.rig,
  },
  readings: {
    name: 'Readings',
    hotkey: 'r',
    screen: ReadingSheet,
    strip: 'full',
    ownSlip: never,
    keypad: always,
    chartKeys: false,
    mark: STATION_MARKS.readings,
  },
  fault: {
    name: 'Fault',
    hotkey: 'f',
    screen: lazyPart(() => import('../fault/FaultStation'), 'FaultStation'),
    strip: 'slim',
    ownSlip: never,
    keypad: never,
    chartKeys: false,
    mark: STATION_MARKS.fault,
  },
  options: {
    name: 'Options',
    hotkey: 'o',
    screen: lazyPart(() => import('../options/OptionsStation'), 'OptionsStation'),
    strip: 'slim',
    ownSlip: always,
    keypad: never,
    chartKeys: true,
    mark: STATION_MARKS.options,
  },
  sizing: {
    name: 'Sizing',
    hotkey: 'z',
    screen: lazyPart(() => import('../sizing/SizingStation'), 'SizingStation'),
    strip: 'slim',
    ownSlip: always,
    keypad: never,
    chartKeys: false,
    mark: STATION_MARKS.sizing,
  },
  build: {
    name: 'Build',
    hotkey: 'b',
    screen: lazyPart(() => import('../build/BuildStation'), 'BuildStation'),
    strip: 'slim',
    ownSlip: (job) => standingChoice(job) !== undefined,
    keypad: never,
    chartKeys: false,
    mark: STATION_MARKS.build,
  },
  prove: {
    name: 'Prove',
    hotkey: 'p',
    screen: lazyPart(() => import('../prove/ProveStation'), 'ProveStation'),
    strip: 'full',
    ownSlip: never,
    keypad: (job) => madeBy(job) !== undefined,
    chartKeys: false,
    mark: STATION_MARKS.prove,
  },
  logbook: {
    name: 'Logbook',
    hotkey: 'k',
    screen: lazyPart(() => import('../logbook/LogbookStation'), 'LogbookStation'),
    strip: 'slim',
    ownSlip: never,
    keypad: never,
    chartKeys: false,
    mark: STATION_MARKS.logbook,
  },
};
