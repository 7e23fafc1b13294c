'use client';
/** Joins the job, the core's answers and the screens; owns what is selected and typed. */
import { useRouter, useSelectedLayoutSegment } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { engine } from '@/client/engine';
import { useCore } from '@/client/useCore';
import { useJob, type JobView } from '@/client/useJob';
import type { Job } from '@/core/formats/job';
import type { Measurement } from '@/core/probe/measurement';
import type { Rig } from '@/core/rig/schema';
import { BenchProvider, readingOf, STATIONS, type Bench, type Station } from '@/ui/job/bench';
import { BenchScreen } from '@/ui/job/BenchScreen';
import { Notices } from '@/ui/job/Notices';
import { nextAction, stationOf } from '@/ui/job/nextAction';
import { TypedProvider, useChangeTyped } from '@/ui/job/typed';

const MIN_NUMBER = 1;

export function JobBench({ number }: { number: number }) {
  const view = useJob(number);
  // The worker's script loads beside the job's data, not after it.
  useEffect(() => void engine(), []);
  if (!Number.isInteger(number) || number < MIN_NUMBER || view.error?.status === 404)
    return <Plain title="No such job" words={`There is no job ${number} in this shop.`} />;
  if (view.error?.status === 401) return <Plain title="Signed out" words="Sign in again. What you entered is kept on this device." href="/sign-in" link="Sign in" />;
  if (!view.job)
    return view.error ? <Plain title="Not reachable" words={view.error.message} /> : <p className="boot" role="status">Opening job {number} …</p>;
  return (
    <TypedProvider>
      <Loaded view={view} job={view.job} />
    </TypedProvider>
  );
}

function Plain({ title, words, href = '/', link = 'All jobs' }: { title: string; words: string; href?: string; link?: string }) {
  return (
    <main className="plain">
      <h1>{title}</h1>
      <p>{words}</p>
      <a className="bx go" href={href}>
        {link}
      </a>
    </main>
  );
}

function Loaded({ view, job }: { view: JobView; job: Job }) {
  const router = useRouter();
  const segment = useSelectedLayoutSegment();
  const station: Station = (STATIONS as readonly string[]).includes(segment ?? '') ? (segment as Station) : 'readings';
  const core = useCore(job);
  const [selectedId, setSelectedId] = useState<string>();
  const changeTyped = useChangeTyped();
  const [chooser, setChooser] = useState<{ suggested?: string }>();
  const [lead, setLead] = useState(false);
  const [preview, setPreview] = useState<Rig>();
  const [working, setWorking] = useState<{ state: string; measurement: Measurement }>();
  const { send } = view;

  const measurements = useMemo(() => core.table?.measurements ?? [], [core.table]);
  const next = useMemo(
    () => nextAction({ job, diagnosis: core.diagnosis, proofs: core.proofs, measurements }),
    [job, core.diagnosis, core.proofs, measurements],
  );
  const suggestedId = next.kind === 'measure' ? next.measurement.id : undefined;
  // Nothing picked by hand: the next measurement is the one in hand, else the first not taken in this state.
  const selected =
    measurements.find((m) => m.id === (selectedId ?? suggestedId)) ??
    measurements.find((m) => m.kind !== 'drop' && !readingOf(core.readings, job.rigState.id, m)) ??
    measurements[0];

  const go = useCallback((s: Station) => router.push(`/jobs/${job.number}/${s}`), [router, job.number]);
  const select = useCallback(
    (m: Measurement) => {
      setSelectedId(m.id);
      changeTyped({ text: '', millis: false });
    },
    [changeTyped],
  );
  const band = useCallback((state: string, id: string) => core.table?.bands[state]?.[id], [core.table]);
  const askWorking = useCallback(
    (state: string, m: Measurement) => engine().bandWorking(core.rig, state, m.red, m.black),
    [core.rig],
  );

  const bench: Bench = {
    job,
    rig: core.rig.doc,
    epoch: core.epoch,
    actor: view.actor,
    shop: view.shop,
    readings: core.readings,
    measurements,
    band,
    point: (key) => core.table?.points[key],
    diagnosis: core.diagnosis,
    diagnosing: core.diagnosing,
    proofs: core.proofs,
    station,
    go,
    selected,
    select,
    setTyped(text) {
      // From the first digit on the probe in hand stays in hand, whatever the diagnosis would ask for next.
      if (selected && text !== '') setSelectedId(selected.id);
      changeTyped((t) => ({ ...t, text }));
    },
    setMillis: (millis) => changeTyped((t) => ({ ...t, millis })),
    preview,
    setPreview,
    next,
    act() {
      const home = stationOf(next);
      switch (next.kind) {
        case 'change-state':
          setChooser({ suggested: next.state });
          break;
        case 'measure':
          select(next.measurement);
          if (station !== 'readings' && station !== 'prove') go('readings');
          break;
        case 'declare': {
          const top = core.diagnosis?.suspects[0];
          if (station === 'fault' && top)
            send('verdict.declare', {
              id: crypto.randomUUID(),
              fault: top.fault,
              name: top.name,
              repair: top.repair,
              probability: Math.min(0.99, top.probability),
              settled: true,
            });
          else go('fault');
          break;
        }
        case 'finish':
          if (station === 'prove') send('job.set-status', { status: 'done' });
          else go('prove');
          break;
        case 'repair':
          if (station === 'fault') document.getElementById('repair-did')?.focus();
          else go('fault');
          break;
        case 'report':
          router.push(`/jobs/${job.number}/report`);
          break;
        case 'look':
        case 'reopen-fault':
          go(home ?? 'fault');
          break;
        case 'wait':
          break;
      }
    },
    openStates: (suggested) => setChooser(suggested === undefined ? {} : { suggested }),
    openLead: () => setLead(true),
    showWorking: (state, measurement) => setWorking({ state, measurement }),
    askWorking,
    send(type, payload) {
      send(type, payload);
      // A kept reading hands over to the next action.
      if (type === 'reading.keep' || type === 'state.set') setSelectedId(undefined);
    },
    undo() {
      const last = [...job.readings].reverse().find((r) => !r.retracted && r.epoch === core.epoch);
      if (last) send('reading.retract', { id: last.id });
    },
  };

  useEffect(() => {
    document.title = `${job.number} ${core.rig.doc.name} · Surrik`;
  }, [job.number, core.rig.doc.name]);

  return (
    <BenchProvider value={bench}>
      <BenchScreen
        dialogs={{
          chooser,
          closeChooser: () => setChooser(undefined),
          lead,
          closeLead: () => setLead(false),
          working,
          closeWorking: () => setWorking(undefined),
        }}
      />
      <Notices waiting={view.waiting} trouble={view.trouble} refused={view.refused.map((e) => ({ id: e.command.id, type: e.command.type, reason: e.reason ?? '' }))} failed={core.failed} onDismiss={view.dismiss} />
    </BenchProvider>
  );
}
