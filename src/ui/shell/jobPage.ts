'use client';
/** What every piece of the job page shares: the job, the core's answers, what is selected, what to do next. */
import { createContext, useContext } from 'react';
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

export interface Selection {
  red: string;
  black?: string;
}

export interface JobPage {
  job: Job;
  /** In the shop's vocabulary, to be shown. */
  rig: Rig;
  /** As it is described, to be edited. */
  described: Rig;
  epoch: number;
  actor: string;
  /** Why this person may not give a command, in a sentence; undefined where he may. */
  whyNot(type: CommandType, payload?: unknown): string | undefined;
  shop: Shop;
  settings: Settings;
  identity: Identity;
  /** Other jobs of this rig, newest first. */
  visits: readonly { number: number; at: string; status: Job['status']; complaint: string; verdict?: string }[];
  /** A text of our own in the shop's vocabulary. */
  words(text: string): string;
  /** An operating state in the shop's words. */
  stateOf(id: string): OperatingState;
  /** Standing readings of the present epoch. */
  readings: readonly Reading[];
  measurements: readonly Measurement[];
  band(state: string, measurementId: string): Band | undefined;
  point(key: string): PointPlace | undefined;
  /** What can be looked at, listened to and tried. */
  questions: readonly ObservationKind[];
  /** Points that have no probe yet. */
  missing: readonly { key: string; name: string }[];
  askPriors(): Promise<PriorLine[]>;
  sendPhoto(file: Blob, caption: string, step?: string): Promise<void>;
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
  diagnosis: Diagnosis | undefined;
  diagnosing: boolean;
  proofs: readonly Proof[] | undefined;
  checks: readonly RigCheck[] | undefined;
  station: Station;
  go(station: Station): void;
  selected: Measurement | undefined;
  select(measurement: Measurement): void;
  setTyped(text: string): void;
  setMillis(on: boolean): void;
  /** The rig as an edit in hand would make it, for the strip only. */
  preview: Rig | undefined;
  /** Parts a design rule speaks of, marked on the strip. */
  ruled: Readonly<Record<string, 'danger' | 'warn'>> | undefined;
  setRuled(ruled: JobPage['ruled']): void;
  setPreview(rig: Rig | undefined): void;
  next: NextAction;
  act(): void;
  openStates(suggested?: string): void;
  openLead(): void;
  showWorking(state: string, measurement: Measurement): void;
  askWorking(state: string, measurement: Measurement): Promise<BandWorking | undefined>;
  send<T extends CommandType>(type: T, payload: Payload<T>): void;
  /** Entries that are on this device and not yet on the server. */
  waiting: number;
  /** Ways of linking the batteries, worked out aside. */
  options: OptionsSource;
  /** Years of this rig, and recorders' logs. */
  logbook: LogbookSource;
  /** Of a practice job: what its made-up rig answers. */
  practice?: {
    meter(measurement: Measurement): Promise<{ value: number; unit: 'V' | 'A' }>;
    answer(question: string): Promise<string>;
  };
  undo(): void;
  undoable: CommandType | undefined;
}

const Context = createContext<JobPage | undefined>(undefined);
export const JobPageProvider = Context.Provider;

export function useJobPage(): JobPage {
  const page = useContext(Context);
  if (!page) throw new Error('useBench outside a job');
  return page;
}

/** The standing reading of a measurement in an operating state. */
export const readingOf = (readings: readonly Reading[], state: string, m: Measurement): Reading | undefined =>
  readings.find((r) => r.state === state && r.probe === m.red && r.ref === m.black);
