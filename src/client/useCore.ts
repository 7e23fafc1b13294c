'use client';
/** The worker's answers about a job, kept until what they depend on changes. */
import { keepPreviousData, useQuery, useQueryClient, type QueryKey } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Diagnosis } from '../core/diagnose/diagnose';
import { jobEvidence, jobUnreachable } from '../core/jobAnswers/evidence';
import {
  currentRevision,
  intakeClues,
  madeBy,
  provedAgainst,
  standingAnswers,
  standingChecks,
  standingReadings,
  type Job,
  type Reading,
} from '../core/job/job';
import type { RigCheck } from '../core/prove/check';
import type { Proof } from '../core/prove/proofs';
import type { Settings } from '../core/shop/shop';
import { placeOf } from '../core/probe/measurement';
import { statesOf } from '../core/operate/states';
import { engine, namedRig, type NamedRig, type RigTable, type StateBands } from './engine';

const forever = { staleTime: Infinity, gcTime: 5 * 60_000, placeholderData: keepPreviousData } as const;

export interface CoreView {
  rig: NamedRig;
  epoch: number;
  /** Standing readings of the present epoch. */
  readings: Reading[];
  table: RigTable | undefined;
  /** By operating state: of the present one and those read in at once, of the others a moment later. */
  bands: Readonly<Record<string, StateBands>>;
  /** Of the present epoch. */
  diagnosis: Diagnosis | undefined;
  diagnosing: boolean;
  /** What is shown was found from the readings before the last. */
  outdated: boolean;
  /** Present once the rig was repaired or built. */
  proofs: Proof[] | undefined;
  checks: RigCheck[] | undefined;
  failed: string | undefined;
}

const measured = (list: readonly Reading[]) =>
  list.flatMap((r) =>
    r.status === 'measured' && r.value !== undefined
      ? [{ state: r.state, probe: r.probe, ...(r.ref === undefined ? {} : { ref: r.ref }), value: r.value }]
      : [],
  );

/**
 * Asks while the page is being drawn, as a prefetch does: an effect would ask when all of it is drawn and laid out, and the
 * worker would wait for that.
 */
function useAskedEarly(options: { queryKey: QueryKey; queryFn: () => Promise<unknown> }, wanted = true): void {
  const client = useQueryClient();
  if (wanted && !client.getQueryState(options.queryKey)) void client.prefetchQuery({ ...options, staleTime: Infinity });
}

const NONE: CoreView['bands'] = {};

/** Bands of a rig, the states one looks at first; all of them once what is to be done next is known. */
function useBands(rig: NamedRig, job: Job, readings: readonly Reading[], settled: boolean) {
  const first = [...new Set([job.rigState.id, ...readings.map((r) => r.state)])];
  const all = statesOf(rig.doc).map((s) => s.id);
  const wanted = settled ? [...new Set([...first, ...all])] : first;
  return useQuery({
    // Of a name of its own: a list of one state is no state.
    queryKey: ['bands of states', rig.key, job.blackLead, [...wanted].sort().join()],
    queryFn: async ({ client }) => {
      const bands: Record<string, StateBands> = {};
      // One after the other: a reading kept meanwhile is taken in between two of them.
      for (const state of wanted) bands[state] = await client.ensureQueryData(bandsOf(rig, job.blackLead, state));
      return bands;
    },
    ...forever,
  });
}

const bandsOf = (rig: NamedRig, blackLead: string, state: string) => ({
  queryKey: ['bands', rig.key, blackLead, state],
  queryFn: () => engine().bands(rig, blackLead, state),
  staleTime: Infinity,
});

export function useCore(job: Job, settings: Settings): CoreView {
  const { likelihoods, openMinutes, learnt } = settings;
  const assumed = useMemo(() => ({ likelihoods, openMinutes, learnt }), [likelihoods, openMinutes, learnt]);
  const clues = intakeClues(job);
  const revision = currentRevision(job);
  const { epoch } = revision;
  const rig = useMemo(() => namedRig({ id: revision.id, doc: revision.doc }), [revision.id, revision.doc]);
  const readings = useMemo(() => standingReadings(job, epoch), [job, epoch]);
  const evidence = useMemo(() => jobEvidence(job, epoch), [job, epoch]);
  const observed = useMemo(() => standingAnswers(job, epoch), [job, epoch]);
  const unreachable = useMemo(() => jobUnreachable(job, epoch), [job, epoch]);
  const made = madeBy(job);
  const against = useMemo(() => provedAgainst(job), [job]);
  const before = useMemo(() => measured(against.readings), [against]);

  const tabled = {
    queryKey: ['table', rig.key, job.blackLead],
    queryFn: () => engine().table(rig, job.blackLead),
    ...forever,
  };
  useAskedEarly(tabled);
  useAskedEarly(bandsOf(rig, job.blackLead, job.rigState.id));
  const table = useQuery(tabled);
  const openPlaces = useMemo(
    () => [...new Set(readings.flatMap((r) => placeOf(rig.doc, r.probe) ?? []))].sort(),
    [readings, rig.doc],
  );
  const proving = useQuery({
    queryKey: ['proving', rig.key, made, against.fault, before.length, evidence.map((e) => e.id).join()],
    queryFn: () =>
      engine().proving(
        rig,
        {
          made: made!,
          ...(against.from ? { from: against.from } : {}),
          ...(against.fault === undefined ? {} : { fault: against.fault }),
        },
        before,
        measured(readings),
      ),
    enabled: made !== undefined,
    ...forever,
  });
  // What was repaired or built is diagnosed again only where its proof failed.
  const failed =
    proving.data?.readings.some((p) => p.after && p.after.verdict !== 'ok') ||
    [...standingChecks(job, epoch).values()].some((c) => c.result === 'fail');
  const diagnosed = made === undefined || failed === true;
  const asked = {
    queryKey: [
      'diagnosis',
      rig.key,
      clues.join(),
      assumed,
      job.rigState.id,
      job.blackLead,
      openPlaces.join(),
      unreachable.join(),
      evidence.map((e) => `${e.id}${e.confirmed ? '!' : ''}${e.meter?.voltShare ?? ''}`).join(),
      observed.map((o) => o.id).join(),
    ],
    queryFn: () =>
      engine().diagnose(rig, clues, assumed, evidence, observed, {
        state: job.rigState.id,
        openPlaces,
        unreachable,
        blackLead: job.blackLead,
      }),
    ...forever,
  };
  useAskedEarly(asked, diagnosed);
  const diagnosis = useQuery({ ...asked, enabled: diagnosed });
  const bands = useBands(rig, job, readings, diagnosed ? diagnosis.isSuccess : proving.isSuccess);
  const failure = table.error ?? bands.error ?? diagnosis.error ?? proving.error;
  return {
    rig,
    epoch,
    readings,
    table: table.data,
    bands: bands.data ?? NONE,
    diagnosis: diagnosed ? diagnosis.data : undefined,
    diagnosing: diagnosis.isFetching,
    outdated: (diagnosed && diagnosis.isPlaceholderData) || (made !== undefined && proving.isPlaceholderData),
    proofs: made ? proving.data?.readings : undefined,
    checks: made ? proving.data?.checks : undefined,
    failed: failure ? String((failure as Error).message) : undefined,
  };
}
