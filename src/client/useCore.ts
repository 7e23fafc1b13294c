'use client';
/** The worker's answers about a job, kept until what they depend on changes. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Diagnosis } from '../core/diagnose/diagnose';
import { jobEvidence, jobUnreachable } from '../core/formats/evidence';
import { currentRevision, intakeClues, standingAnswers, standingReadings, type Job, type Reading } from '../core/formats/job';
import type { Proof } from '../core/prove/proofs';
import type { Settings } from '../core/formats/shop';
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
  /** Present once a repair was recorded. */
  proofs: Proof[] | undefined;
  failed: string | undefined;
}

const measured = (list: readonly Reading[]) =>
  list.flatMap((r) =>
    r.status === 'measured' && r.value !== undefined
      ? [{ state: r.state, probe: r.probe, ...(r.ref === undefined ? {} : { ref: r.ref }), value: r.value }]
      : [],
  );

export function useCore(job: Job, settings: Settings): CoreView {
  const { likelihoods, openMinutes } = settings;
  const assumed = useMemo(() => ({ likelihoods, openMinutes }), [likelihoods, openMinutes]);
  const clues = intakeClues(job);
  const revision = currentRevision(job);
  const { epoch } = revision;
  const rig = useMemo(() => namedRig({ id: revision.id, doc: revision.doc }), [revision.id, revision.doc]);
  const readings = useMemo(() => standingReadings(job, epoch), [job, epoch]);
  const evidence = useMemo(() => jobEvidence(job, epoch), [job, epoch]);
  const observed = useMemo(() => standingAnswers(job, epoch), [job, epoch]);
  const unreachable = useMemo(() => jobUnreachable(job, epoch), [job, epoch]);
  const repaired = job.repairs.some((r) => !r.withdrawn);
  const before = useMemo(() => measured(standingReadings(job, epoch - 1)), [job, epoch]);

  const table = useQuery({
    queryKey: ['table', rig.key, job.blackLead],
    queryFn: () => engine().table(rig, job.blackLead),
    ...forever,
  });
  const openPlaces = useMemo(() => {
    const places = table.data?.points;
    return [...new Set(readings.map((r) => places?.[r.probe]?.place).filter((p): p is string => p !== undefined))].sort();
  }, [readings, table.data]);
  const diagnosis = useQuery({
    queryKey: [
      'diagnosis', rig.key, clues.join(), assumed, job.rigState.id, job.blackLead, openPlaces.join(), unreachable.join(),
      evidence.map((e) => `${e.id}${e.confirmed ? '!' : ''}${e.meter?.voltShare ?? ''}`).join(), observed.map((o) => o.id).join(),
    ],
    queryFn: () =>
      engine().diagnose(rig, clues, assumed, evidence, observed, { state: job.rigState.id, openPlaces, unreachable, blackLead: job.blackLead }),
    enabled: table.data !== undefined && !repaired,
    ...forever,
  });
  const proofs = useQuery({
    queryKey: ['proofs', rig.key, before.length, evidence.map((e) => e.id).join()],
    queryFn: () => engine().proofs(rig, before, measured(readings)),
    enabled: repaired,
    ...forever,
  });
  const failure = table.error ?? diagnosis.error ?? proofs.error;
  return {
    rig,
    epoch,
    readings,
    table: table.data,
    diagnosis: repaired ? undefined : diagnosis.data,
    diagnosing: diagnosis.isFetching,
    proofs: repaired ? proofs.data : undefined,
    failed: failure ? String((failure as Error).message) : undefined,
  };
}
