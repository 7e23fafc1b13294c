'use client';
/**
 * What the pieces of the job page share, divided by concern: the job on the table, measuring, the core's answers, where
 * one is, and what is entered. A piece takes what it needs and is not told of the rest.
 */
import { createContext, createElement, useContext, type Context, type ReactNode } from 'react';
import type { Diagnosis } from '../../core/diagnose/diagnose';
import type { CommandType, Payload } from '../../core/job/command';
import type { Job, Reading } from '../../core/job/job';
import type { OperatingState } from '../../core/operate/states';
import type { BandWorking } from '../../core/probe/bands';
import type { Band } from '../../core/probe/judge';
import type { Measurement, PointPlace } from '../../core/probe/measurement';
import type { BuildPace } from '../../core/plan/build/buildPace';
import type { RigCheck } from '../../core/prove/check';
import type { Proof } from '../../core/prove/proofs';
import type { Rig } from '../../core/rig/schema';
import type { Identity } from '../../core/job/identity';
import type { Settings, Shop } from '../../core/shop/shop';
import type { ObservationKind } from '../../core/diagnose/observations/observationKind';
import type { PriorLine } from '../../core/diagnose/priors';
import type { LogbookSource } from '../logbook/source';
import type { OptionsSource } from '../options/source';
import type { NextAction } from './nextAction';
import type { Station } from './stations';

export type { Station } from './stations';

/** The job on the table, its rig, and the shop's words and settings. */
export interface JobFile {
  job: Job;
  /** In the shop's vocabulary, to be shown. */
  rig: Rig;
  /** As it is described, to be edited. */
  described: Rig;
  epoch: number;
  shop: Shop;
  settings: Settings;
  identity: Identity;
  /** Other jobs of this rig, newest first. */
  visits: readonly { number: number; at: string; status: Job['status']; complaint: string; verdict?: string }[];
  /** A text of our own in the shop's vocabulary. */
  words(text: string): string;
  /** An operating state in the shop's words. */
  stateOf(id: string): OperatingState;
  /** Of a practice job: what its made-up rig answers. */
  practice?: {
    meter(measurement: Measurement): Promise<{ value: number; unit: 'V' | 'A' }>;
    answer(question: string): Promise<string>;
  };
}

/** What can be read, what was read, and the probe in hand. */
export interface Measuring {
  /** Standing readings of the present epoch. */
  readings: readonly Reading[];
  measurements: readonly Measurement[];
  band(state: string, measurementId: string): Band | undefined;
  point(key: string): PointPlace | undefined;
  /** What can be looked at, listened to and tried. */
  questions: readonly ObservationKind[];
  /** Points that have no probe yet. */
  missing: readonly { key: string; name: string }[];
  selected: Measurement | undefined;
  select(measurement: Measurement): void;
  setTyped(text: string): void;
  setMillis(on: boolean): void;
  openStates(suggested?: string): void;
  openLead(): void;
  showWorking(state: string, measurement: Measurement): void;
  askWorking(state: string, measurement: Measurement): Promise<BandWorking | undefined>;
}

/** What the core makes of it, and what can be asked of it. */
export interface Answers {
  diagnosis: Diagnosis | undefined;
  diagnosing: boolean;
  proofs: readonly Proof[] | undefined;
  checks: readonly RigCheck[] | undefined;
  askPriors(): Promise<PriorLine[]>;
  /** What the proof of a rig would expect to read. */
  expect(doc: Rig): Promise<readonly Proof[]>;
  /** This shop's own minutes for steps of a build. */
  buildPace: BuildPace;
  /** The technician goes his own way round: nothing is asked for, everything counts. */
  ownRound: boolean;
  setOwnRound(on: boolean): void;
  /** Opens what is seen and heard, at a question. */
  openSeen(question?: string): void;
  declare(suspect: { fault: string }, settled: boolean): void;
  /** Ways of linking the batteries, worked out aside. */
  options: OptionsSource;
  /** Years of this rig, and recorders' logs. */
  logbook: LogbookSource;
}

/** Where one is, what comes next, and what the strip shows meanwhile. */
export interface Place {
  station: Station;
  go(station: Station): void;
  next: NextAction;
  act(): void;
  /** The rig as an edit in hand would make it, for the strip only. */
  preview: Rig | undefined;
  setPreview(rig: Rig | undefined): void;
  /** Parts a design rule speaks of, marked on the strip. */
  ruled: Readonly<Record<string, 'danger' | 'warn'>> | undefined;
  setRuled(ruled: Place['ruled']): void;
}

/** What is entered, by whom, and whether it is safe. */
export interface Entries {
  actor: string;
  /** Why this person may not give a command, in a sentence; undefined where he may. */
  whyNot(type: CommandType, payload?: unknown): string | undefined;
  send<T extends CommandType>(type: T, payload: Payload<T>): void;
  sendPhoto(file: Blob, caption: string, step?: string): Promise<void>;
  /** Entries that are on this device and not yet on the server. */
  waiting: number;
  undo(): void;
  undoable: CommandType | undefined;
}

export interface JobPage {
  file: JobFile;
  measuring: Measuring;
  answers: Answers;
  place: Place;
  entries: Entries;
}

const CONTEXTS: { [K in keyof JobPage]: Context<JobPage[K] | undefined> } = {
  file: createContext<JobFile | undefined>(undefined),
  measuring: createContext<Measuring | undefined>(undefined),
  answers: createContext<Answers | undefined>(undefined),
  place: createContext<Place | undefined>(undefined),
  entries: createContext<Entries | undefined>(undefined),
};

/** A job page's parts for everything within. */
export function JobPageProvider({ value, children }: { value: JobPage; children: ReactNode }): ReactNode {
  return (Object.keys(CONTEXTS) as (keyof JobPage)[]).reduceRight<ReactNode>(
    (within, part) =>
      createElement(CONTEXTS[part].Provider as Context<unknown>['Provider'], { value: value[part] }, within),
    children,
  );
}

function usePart<K extends keyof JobPage>(part: K): JobPage[K] {
  const value = useContext(CONTEXTS[part]);
  if (!value) throw new Error(`${part} outside a job`);
  return value;
}

export const useJobFile = (): JobFile => usePart('file');
export const useMeasuring = (): Measuring => usePart('measuring');
export const useAnswers = (): Answers => usePart('answers');
export const usePlace = (): Place => usePart('place');
export const useEntries = (): Entries => usePart('entries');

/** The standing reading of a measurement in an operating state. */
export const readingOf = (readings: readonly Reading[], state: string, m: Measurement): Reading | undefined =>
  readings.find((r) => r.state === state && r.probe === m.red && r.ref === m.black);
