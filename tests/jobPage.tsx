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
import { nextAction } from '../src/ui/shell/nextAction';
import { JobPageProvider, type JobPage, type Station } from '../src/ui/shell/jobPage';
import { workerApi } from './workerApi';

/** A page of a job. @param sent takes what would be sent */
export async function jobPageOf(
  job: Job,
  station: Station,
  { settings = DEFAULT_SETTINGS, sent = [] }: { settings?: Settings; sent?: { type: string; payload: unknown }[] } = {},
): Promise<JobPage> {
  const core = await workerApi('core');
  const revision = currentRevision(job);
  const { epoch } = revision;
  const rig = { key: revision.id, doc: revision.doc };
  const table = core.table(rig, job.blackLead);
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
    : core.diagnose(rig, intakeClues(job), settings, jobEvidence(job, epoch), standingAnswers(job, epoch), {
        state: job.rigState.id,
        unreachable: jobUnreachable(job, epoch),
        blackLead: job.blackLead,
      });
  const next = nextAction({
    job,
    diagnosis,
    proofs: proving?.readings,
    checks: proving?.checks,
    measurements: table.measurements,
    atFault: station === 'fault',
  });
  const nothing = () => undefined;
  const never = () => new Promise<never>(() => undefined);
  const shop: Shop = { name: 'Shop', settings, instruments: [] } as never;
  return {
    job,
    rig: revision.doc,
    described: revision.doc,
    epoch,
    actor: 'Bay 2 technician',
    shop,
    settings,
    identity: {} as never,
    visits: [],
    words: (text) => text,
    readings,
    measurements: table.measurements,
    band: (state, id) => table.bands[state]?.[id],
    point: (key) => table.points[key],
    questions: table.questions,
    missing: table.missing,
    askPriors: never,
    sendPhoto: never,
    expect: never,
    buildPace: {} as never,
    ownRound: false,
    setOwnRound: nothing,
    openSeen: nothing,
    declare: nothing,
    diagnosis,
    diagnosing: false,
    proofs: proving?.readings,
    checks: proving?.checks,
    station,
    go: nothing,
    selected: next.kind === 'measure' ? next.measurement : table.measurements[0],
    select: nothing,
    setTyped: nothing,
    setMillis: nothing,
    preview: undefined,
    ruled: undefined,
    setRuled: nothing,
    setPreview: nothing,
    next,
    act: nothing,
    openStates: nothing,
    openLead: nothing,
    showWorking: nothing,
    askWorking: never,
    send: (type, payload) => void sent.push({ type, payload }),
    waiting: 0,
    options: new Proxy({} as never, { get: () => never }),
    logbook: new Proxy({} as never, { get: () => never }),
    undo: nothing,
    undoable: undefined,
  };
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
