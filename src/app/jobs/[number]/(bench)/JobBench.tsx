'use client';
/** Joins the job, the core's answers and the screens; owns what is selected and typed. */
import { usePathname, useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { engine, namedRig } from '@/client/engine';
import { useCore } from '@/client/useCore';
import { useJob, type JobView } from '@/client/useJob';
import { useLogbook } from '@/client/logbook';
import { useOptions } from '@/client/useOptions';
import { currentRevision, intakeClues, type Job } from '@/core/job/job';
import { isMended } from '@/core/job/practiceJob';
import type { Shop } from '@/core/shop/shop';
import { measurementId, type Measurement } from '@/core/probe/measurement';
import type { Rig } from '@/core/rig/schema';
import { JobPageProvider, readingOf, type JobFile, type JobPage, type Place } from '@/ui/shell/jobPage';
import { BenchScreen } from '@/ui/shell/JobScreen';
import { Notices } from '@/ui/shell/Notices';
import { STATION_REGISTRY } from '@/ui/shell/stationRegistry';
import { isStation, type Station } from '@/ui/shell/stations';
import { nextAction, stationOf, whileThinking } from '@/ui/shell/nextAction';
import { shopWords } from '@/ui/shell/shopWords';
import { TypedProvider, useChangeTyped } from '@/ui/typed';
import { PHONE, scrolling } from '@/ui/useMedia';

const MIN_NUMBER = 1;
const NO_QUESTIONS = [] as const;
const NO_POINTS = [] as const;

// The worker's script loads beside this page's own, not after it.
if (typeof Worker !== 'undefined') engine();

export function JobBench({ number }: { number: number }) {
  const view = useJob(number);
  if (!Number.isInteger(number) || number < MIN_NUMBER || view.error?.status === 404)
    return <Plain title="No such job" words={`There is no job ${number} in this shop.`} />;
  if (view.error?.status === 401)
    return (
      <Plain
        title="Signed out"
        words="Sign in again. What you entered is kept on this device."
        href="/sign-in"
        link="Sign in"
      />
    );
  if (!view.job || !view.shop)
    return view.error ? (
      <Plain title="Not reachable" words={view.error.message} />
    ) : (
      <p className="boot" role="status">
        Opening job {number} …
      </p>
    );
  return (
    <TypedProvider>
      <Loaded view={view} job={view.job} shop={view.shop} />
    </TypedProvider>
  );
}

/** Whether readings are typed at a station: beside the proofs only where there is room for a keypad. */
const typesAt = (station: Station): boolean =>
  station === 'readings' || (station === 'prove' && !window.matchMedia(PHONE).matches);

/** What the made-up rig of a practice job answers, by the core. */
function practiceOf(job: Job, rig: Rig): NonNullable<JobFile['practice']> {
  const mended = isMended(job, rig);
  const state = job.rigState.id;
  return {
    meter: (m) =>
      engine().practiceReading(rig, mended, {
        state,
        probe: m.red,
        ...(m.black === undefined ? {} : { ref: m.black }),
        take: job.readings.filter((r) => r.state === state && r.probe === m.red && r.ref === m.black).length,
      }),
    answer: async (question) => (await engine().practiceAnswer(rig, mended, question)) ?? 'nothing to see',
  };
}

function Plain({
  title,
  words,
  href = '/',
  link = 'All jobs',
}: {
  title: string;
  words: string;
  href?: string;
  link?: string;
}) {
  return (
    <main className="plain">
      <h1>{title}</h1>
      <p>{words}</p>
      <a className="btn" href={href}>
        {link}
      </a>
    </main>
  );
}

function Loaded({ view, job, shop }: { view: JobView; job: Job; shop: Shop }) {
  const router = useRouter();
  const segment = usePathname().split('/')[3];
  const station = isStation(segment) ? segment : 'readings';
  const core = useCore(job, shop.settings);
  const options = useOptions(job, shop.settings);
  const logbook = useLogbook(job.number, shop.settings);
  const { vocabulary } = shop.settings;
  // Everything is written in one vocabulary; the shop's own is put in here, where it is shown.
  const say = useMemo(() => shopWords(vocabulary, core.rig.doc), [vocabulary, core.rig.doc]);
  const { rig, text: words } = say;
  const table = useMemo(() => say.all(core.table), [say, core.table]);
  const diagnosis = useMemo(() => say.all(core.diagnosis), [say, core.diagnosis]);
  const proofs = useMemo(() => say.all(core.proofs), [say, core.proofs]);
  const checks = useMemo(() => say.all(core.checks), [say, core.checks]);
  const [selectedId, setSelectedId] = useState<string>();
  const changeTyped = useChangeTyped();
  const [chooser, setChooser] = useState<{ suggested?: string }>();
  const [lead, setLead] = useState(false);
  const [seen, setSeen] = useState<{ question?: string }>();
  const [ownRound, setOwnRound] = useState(false);
  const [preview, setPreview] = useState<Rig>();
  const [ruled, setRuled] = useState<Place['ruled']>();
  const [working, setWorking] = useState<{ state: string; measurement: Measurement }>();
  const { send } = view;

  const measurements = useMemo(() => table?.measurements ?? [], [table]);
  const found = useMemo(
    () =>
      say.action(nextAction({ job, diagnosis, proofs, checks, measurements, ownRound, atFault: station === 'fault' })),
    [say, job, diagnosis, proofs, checks, measurements, ownRound, station],
  );
  const next = core.outdated ? whileThinking(found) : found;
  // A probe that was asked for stays in hand while its reading is taken in.
  const suggestedId = found.kind === 'measure' ? found.measurement.id : undefined;
  // Nothing picked by hand: the next measurement is the one in hand, else the first not taken in this state.
  const selected =
    measurements.find((m) => m.id === (selectedId ?? suggestedId)) ??
    measurements.find((m) => m.kind !== 'drop' && !readingOf(core.readings, job.rigState.id, m)) ??
    measurements[0];

  // All stations are one page: the server is not asked, so that one moves between them where it is out of reach.
  const go = useCallback((s: Station) => window.history.pushState(null, '', `/jobs/${job.number}/${s}`), [job.number]);
  const select = useCallback(
    (m: Measurement) => {
      setSelectedId(m.id);
      changeTyped({ text: '', millis: false });
    },
    [changeTyped],
  );
  // What has to be proved is held against the band of all proofs together, everywhere on the page alike.
  const proofBands = useMemo(
    () => new Map((core.proofs ?? []).map((p) => [`${p.state}/${measurementId(p.probe, p.ref)}`, p.band])),
    [core.proofs],
  );
  const band = useCallback(
    (state: string, id: string) => proofBands.get(`${state}/${id}`) ?? core.bands[state]?.[id],
    [proofBands, core.bands],
  );
  const declare = (suspect: { fault: string }, settled: boolean) => {
    // What is recorded is recorded in the catalogue's own words.
    const s = core.diagnosis?.suspects.find((x) => x.fault === suspect.fault);
    if (s)
      send('verdict.declare', {
        id: crypto.randomUUID(),
        fault: s.fault,
        name: s.name,
        repair: s.repair.slice(0, 200),
        probability: Math.min(0.99, s.probability),
        settled,
      });
  };
  const askWorking = useCallback(
    (state: string, m: Measurement) => engine().bandWorking(core.rig, state, m.red, m.black),
    [core.rig],
  );

  const page: JobPage = {
    file: {
      job,
      rig,
      described: core.rig.doc,
      epoch: core.epoch,
      shop,
      settings: shop.settings,
      identity: view.identity,
      visits: view.visits,
      words,
      stateOf: say.stateOf,
      ...(core.rig.doc.practice ? { practice: practiceOf(job, core.rig.doc) } : {}),
    },
    measuring: {
      readings: core.readings,
      measurements,
      band,
      point: (key) => table?.points[key],
      questions: table?.questions ?? NO_QUESTIONS,
      missing: table?.missing ?? NO_POINTS,
      selected,
      select,
      setTyped(text) {
        // From the first digit on the probe in hand stays in hand, whatever the diagnosis would ask for next.
        if (selected && text !== '') setSelectedId(selected.id);
        changeTyped((t) => ({ ...t, text }));
      },
      setMillis: (millis) => changeTyped((t) => ({ ...t, millis })),
      openStates: (suggested) => setChooser(suggested === undefined ? {} : { suggested }),
      openLead: () => setLead(true),
      showWorking: (state, measurement) => setWorking({ state, measurement }),
      askWorking,
    },
    answers: {
      diagnosis,
      diagnosing: core.diagnosing,
      proofs,
      checks,
      askPriors: () => engine().priors(core.rig, intakeClues(job), shop.settings),
      expect: async (doc) =>
        (await engine().proving(namedRig({ id: 'expected', doc }), { made: 'build' }, [], [])).readings,
      buildPace: view.buildPace,
      ownRound,
      setOwnRound,
      openSeen: (question) => setSeen(question === undefined ? {} : { question }),
      declare,
      options,
      logbook,
    },
    place: {
      station,
      go,
      next,
      preview,
      setPreview,
      ruled,
      setRuled,
      act() {
        const home = stationOf(next);
        switch (next.kind) {
          case 'change-state':
            setChooser({ suggested: next.state });
            break;
          case 'measure':
            select(next.measurement);
            if (!typesAt(station)) go('readings');
            break;
          case 'declare': {
            const top = core.diagnosis?.suspects[0];
            if (station === 'fault' && top) declare(top, true);
            else go('fault');
            break;
          }
          case 'finish':
            if (station === 'prove') {
              send('record.sign', {
                id: crypto.randomUUID(),
                revision: currentRevision(job).id,
                words: 'Measured as written here; it is right now.',
              });
              send('job.set-status', { status: 'done' });
            } else go('prove');
            break;
          case 'check':
            if (station !== 'prove') go('prove');
            else
              document
                .getElementById(`check-${next.check}`)
                ?.scrollIntoView({ block: 'center', behavior: scrolling() });
            break;
          case 'ask':
            setSeen({ question: next.question });
            break;
          case 'approve':
          case 'repair':
            if (station === 'fault')
              document.getElementById(next.kind === 'approve' ? 'approve-sum' : 'repair-did')?.focus();
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
          case 'own':
            break;
        }
      },
    },
    entries: {
      actor: view.actor,
      whyNot: view.whyNot,
      send(type, payload) {
        send(type, payload);
        // A kept reading hands over to the next action.
        if (type === 'reading.keep' || type === 'state.set') setSelectedId(undefined);
      },
      sendPhoto: view.keepPhoto,
      waiting: view.waiting,
      undo: view.undo,
      undoable: view.undoable,
    },
  };

  useEffect(() => {
    document.title = `${STATION_REGISTRY[station].name} · ${job.number} ${core.rig.doc.name} · Surrik`;
  }, [job.number, core.rig.doc.name, station]);

  return (
    <JobPageProvider value={page}>
      <BenchScreen
        notices={
          <Notices
            waiting={view.waiting}
            silentSince={view.silentSince}
            unsafe={view.unsafe}
            clockAhead={view.clockAhead}
            trouble={view.trouble}
            refused={view.refused.map((e) => ({
              id: e.command.id,
              type: e.command.type,
              reason: e.reason ?? '',
              aside: e.status === 'aside',
              conflict: e.conflict ?? false,
              command: e.command,
            }))}
            failed={core.failed}
            denied={view.denied}
            onSeenDenied={view.seenDenied}
            photos={view.photos}
            onDismissPhoto={view.dismissPhoto}
            onDismiss={view.dismiss}
            onResend={view.resend}
          />
        }
        dialogs={{
          chooser,
          closeChooser: () => setChooser(undefined),
          lead,
          closeLead: () => setLead(false),
          working,
          closeWorking: () => setWorking(undefined),
          seen,
          closeSeen: () => setSeen(undefined),
        }}
      />
    </JobPageProvider>
  );
}
