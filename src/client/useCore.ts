'use client';
/** The worker's answers about a job, kept until what they depend on changes. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
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
import { remembered } from './remembered';
import { engine, namedRig, type NamedRig, type RigTable } from './engine';

const forever = { staleTime: Infinity, gcTime: 5 * 60_000, placeholderData: keepPreviousData } as const;

export interface CoreView {
  rig: NamedRig;
  epoch: number;
  /** Standing readings of the present epoch. */
  readings: Reading[];
  table: RigTable | undefined;
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

  const table = useQuery({
    queryKey: ['table', rig.key, job.blackLead],
    queryFn: () => remembered(['table', rig.doc, job.blackLead], () => engine().table(rig, job.blackLead)),
    ...forever,
  });
  // The diagnosis does not wait for the bands to come round: the worker goes on to it at once.
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
  const diagnosis = useQuery({
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
    queryFn: () => {
      const { id } = job.rigState;
      const options = { state: id, openPlaces, unreachable, blackLead: job.blackLead };
      return remembered(['diagnosis', rig.doc, clues, assumed, evidence, observed, options], () =>
        engine().diagnose(rig, clues, assumed, evidence, observed, options),
      );
    },
    enabled: diagnosed,
    ...forever,
  });
  const failure = table.error ?? diagnosis.error ?? proving.error;
  return {
    rig,
    epoch,
    readings,
    table: table.data,
    diagnosis: diagnosed ? diagnosis.data : undefined,
    diagnosing: diagnosis.isFetching,
    outdated: (diagnosed && diagnosis.isPlaceholderData) || (made !== undefined && proving.isPlaceholderData),
    proofs: made ? proving.data?.readings : undefined,
    checks: made ? proving.data?.checks : undefined,
    failed: failure ? String((failure as Error).message) : undefined,
  };
}
