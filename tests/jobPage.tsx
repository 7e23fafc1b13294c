/** The job page of a job as its pieces see it, with the core's own answers; what it sends is kept, not sent. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { jobEvidence, jobUnreachable } from '../src/core/jobAnswers/evidence';
import {
  currentRevision,
  intakeClues,
  madeBy,
  provedAgainst,
  standingAnswers,
  standingReadings,
  type Job,
} from '../src/core/job/job';
import { DEFAULT_SETTINGS } from '../src/core/shop/shop';
import type { Settings, Shop } from '../src/core/shop/shop';
import { statesOf } from '../src/core/operate/states';
import type { StateBands } from '../src/workers/core.worker';
import { nextAction } from '../src/ui/shell/nextAction';
import { shopWords } from '../src/ui/shell/shopWords';
import {
  JobPageProvider,
  type Answers,
  type Entries,
  type JobFile,
  type JobPage,
  type Measuring,
  type Place,
  type Station,
} from '../src/ui/shell/jobPage';
import { workerApi } from './workerApi';

/** What the core answers about a job: worked out once, however many pages are drawn of it. */
const answers = new Map<string, ReturnType<typeof workedOut>>();
function coreAnswers(job: Job, settings: Settings): ReturnType<typeof workedOut> {
  // The shop's words are put in afterwards: they are no part of the question.
  const key = JSON.stringify([job, { ...settings, vocabulary: '' }]);
  let known = answers.get(key);
  if (!known) answers.set(key, (known = workedOut(job, settings)));
  return known;
}

async function workedOut(job: Job, settings: Settings) {
  const core = await workerApi('core');
  const revision = currentRevision(job);
  const { epoch } = revision;
  const rig = { key: revision.id, doc: revision.doc };
  const table = core.table(rig, job.blackLead);
  const bands: Record<string, StateBands> = {};
  for (const { id } of statesOf(rig.doc)) bands[id] = await core.bands(rig, job.blackLead, id);
  const readings = standingReadings(job, epoch);
  const made = madeBy(job);
  const against = provedAgainst(job);
  const points = (list: typeof readings) =>
    list.flatMap((r) =>
      r.value === undefined ? [] : [{ state: r.state, probe: r.probe, ref: r.ref, value: r.value }],
    );
  const proving = made
    ? core.proving(
        rig,
        { made, ...(against.from ? { from: against.from } : {}) },
        points([...against.readings]) as never,
        points(readings) as never,
      )
    : undefined;
  const diagnosis = made
    ? undefined
    : await core.diagnose(rig, intakeClues(job), settings, jobEvidence(job, epoch), standingAnswers(job, epoch), {
        state: job.rigState.id,
        unreachable: jobUnreachable(job, epoch),
        blackLead: job.blackLead,
      });
  return { table, bands, proving, diagnosis };
}

/** A page of a job. @param sent takes what would be sent */
export async function jobPageOf(
  job: Job,
  station: Station,
  { settings = DEFAULT_SETTINGS, sent = [] }: { settings?: Settings; sent?: { type: string; payload: unknown }[] } = {},
): Promise<JobPage> {
  const { table, bands, proving, diagnosis } = await coreAnswers(job, settings);
  const revision = currentRevision(job);
  const { epoch } = revision;
  const readings = standingReadings(job, epoch);
  // As the page does it: everything the core says goes through the shop's words once.
  const say = shopWords(settings.vocabulary, revision.doc);
  const told = say.all({ table, diagnosis, proofs: proving?.readings, checks: proving?.checks });
  const { measurements } = told.table;
  const next = say.action(
    nextAction({
      job,
      diagnosis: told.diagnosis,
      proofs: told.proofs,
      checks: told.checks,
      measurements,
      atFault: station === 'fault',
    }),
  );
  const nothing = () => undefined;
  const never = () => new Promise<never>(() => undefined);
  const shop: Shop = { name: 'Shop', settings, instruments: [] } as never;
  return {
    file: {
      job,
      rig: say.rig,
      described: revision.doc,
      epoch,
      shop,
      settings,
      identity: {} as never,
      visits: [],
      words: say.text,
      stateOf: say.stateOf,
    },
    measuring: {
      readings,
      measurements,
      band: (state, id) => bands[state]?.[id],
      point: (key) => told.table.points[key],
      questions: told.table.questions,
      missing: told.table.missing,
      selected: next.kind === 'measure' ? next.measurement : measurements[0],
      select: nothing,
      setTyped: nothing,
      setMillis: nothing,
      openStates: nothing,
      openLead: nothing,
      showWorking: nothing,
      askWorking: never,
    },
    answers: {
      diagnosis: told.diagnosis,
      diagnosing: false,
      proofs: told.proofs,
      checks: told.checks,
      askPriors: never,
      expect: never,
      buildPace: {} as never,
      ownRound: false,
      setOwnRound: nothing,
      openSeen: nothing,
      declare: nothing,
      options: new Proxy({} as never, { get: () => never }),
      logbook: new Proxy({} as never, { get: () => never }),
    },
    place: {
      station,
      go: nothing,
      next,
      act: nothing,
      preview: undefined,
      setPreview: nothing,
      ruled: undefined,
      setRuled: nothing,
    },
    entries: {
      actor: 'Bay 2 technician',
      whyNot: () => undefined,
      send: (type, payload) => void sent.push({ type, payload }),
      sendPhoto: never,
      waiting: 0,
      undo: nothing,
      undoable: undefined,
    },
  };
}

/** The page with some of it another: each goes where its like is. */
export function changed(page: JobPage, parts: Partial<JobFile & Measuring & Answers & Place & Entries>): JobPage {
  const other = Object.fromEntries(
    Object.entries(page).map(([k, part]) => [k, { ...(part as object) }]),
  ) as unknown as JobPage & Record<string, Record<string, unknown>>;
  for (const [name, value] of Object.entries(parts)) {
    const part = Object.values(other).find((p) => name in p);
    if (!part) throw new Error(`no part of the page has ${name}`);
    (part as unknown as Record<string, unknown>)[name] = value;
  }
  return other;
}

/** A piece of a page as HTML. */
export const rendered = (page: JobPage, piece: ReactNode): string =>
  renderToStaticMarkup(
    <QueryClientProvider client={new QueryClient()}>
      <JobPageProvider value={page}>{piece}</JobPageProvider>
    </QueryClientProvider>,
  );

/** What a reader sees and hears of HTML: its text and its labels. */
export const readable = (html: string): string =>
  [html, ...[...html.matchAll(/(?:aria-label|title|placeholder|alt)="([^"]*)"/g)].map((m) => ` ${m[1]} `)]
    .join(' ')
    .replaceAll(/<script[\s\S]*?<\/script>/g, ' ')
    .replaceAll(/<[^>]+>/g, ' ')
    .replaceAll('&#x27;', '’')
    .replaceAll('&amp;', '&')
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll(/\s+/g, ' ');

/** The same piece by piece: each text between two tags, and each label. */
export const texts = (html: string): string[] =>
  [
    ...html.replaceAll(/<script[\s\S]*?<\/script>/g, ' ').matchAll(/>([^<]+)</g),
    ...html.matchAll(/(?:aria-label|title|placeholder|alt)="([^"]*)"/g),
  ].map(([, text]) => readable(text!).trim());
