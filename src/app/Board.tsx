'use client';
/** The job board: tickets by where they stand, the one that is due marked. */
import { clsx } from 'clsx';
import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { format, formatDistanceToNowStrict } from 'date-fns';
import {
  ArrowRight,
  Calculator,
  CalendarDays,
  FileUp,
  GraduationCap,
  LayoutList,
  LogOut,
  Moon,
  Plus,
  Search,
  Settings2,
  Sun,
  UserRound,
  Users,
} from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useRef, useState } from 'react';
import { counted } from '@/core/units/counted';
import { fetchBoard, fetchOlder, importJobFile, postOpenJob, searchShop } from '@/client/api';
import { practiceJob } from '@/core/job/practiceJob';
import type { BoardPage, BoardTicket } from '@/server/job/board';
import { useTheme } from '@/ui/theme';
import { forgetDrafts } from '@/ui/draft';
import { fromServerOrCopy, forgetCopies } from '@/client/deviceCopy';
import { useSilentSince } from '@/client/useHeard';
import { useLive } from '@/client/live';
import { useJobsAhead } from '@/client/useOffline';
import { signOutAction } from './sign-in/actions';

/** Whoever comes next finds nothing of what was here; what waits to be sent is kept. */
const forgetDevice = () => {
  forgetDrafts();
  void forgetCopies();
};

const COLUMNS: readonly { title: string; statuses: readonly BoardTicket['status'][]; empty: string }[] = [
  {
    title: 'Waiting',
    statuses: ['waiting'],
    empty: 'No jobs waiting. New jobs appear here until a bay is free.',
  },
  { title: 'In the bay', statuses: ['in-the-bay'], empty: 'No rig in a bay.' },
  { title: 'Parts or approval', statuses: ['waiting-approval', 'waiting-parts'], empty: 'Nothing held up.' },
  { title: 'Done', statuses: ['done'], empty: 'Nothing finished yet.' },
];

/** Where else one can go from the board. */
const DOORS = [
  { href: '/calculators', name: 'Calculators', Icon: Calculator },
  { href: '/calendar', name: 'Bays', Icon: CalendarDays },
  { href: '/people', name: 'People', Icon: Users },
  { href: '/shop', name: 'Shop', Icon: Settings2 },
] as const;
const RAIL_BUTTON = clsx(
  'railbtn mt-0 max-narrow:text-fine',
  'max-phone:w-18 max-phone:border-y-0 max-phone:border-r-0 max-phone:border-l-1 max-phone:border-rule',
);

function Ticket({ ticket, due }: { ticket: BoardTicket; due: boolean }) {
  const href =
    ticket.status === 'done'
      ? `/jobs/${ticket.number}/report`
      : `/jobs/${ticket.number}/${ticket.next.station.toLowerCase()}`;
  return (
    <article
      className={clsx(
        'relative',
        'min-w-0 pr-2.75 pl-5.25 pt-2 pb-2.25 border border-ink rounded bg-card',
        'is-due:pr-2.5 is-due:pl-5 is-due:pt-1.75 is-due:border-3',
        `tk${due ? ' due' : ''}`,
      )}
    >
      <div className="h flex items-baseline gap-2 font-cond leading-close">
        <b className="text-title">
          <Link href={href}>{ticket.number}</Link>
        </b>
        <i className="font-semibold text-large not-italic">{ticket.rig}</i>
      </div>
      <p className="kind mt-0.75 font-cond font-medium text-note text-ink-2 leading-tight">{ticket.kind}</p>
      <p className="mt-0.75 text-note leading-tight">{ticket.complaint}</p>
      <div
        className={clsx(
          'grid grid-cols-icon gap-1.25',
          'mt-1.5 pt-1.25 border-t border-dashed border-rule',
          'text-note leading-tight',
        )}
      >
        <ArrowRight size={17} aria-hidden="true" />
        <span>
          <b className="font-semibold">{ticket.next.station}:</b> {ticket.next.words}
        </span>
      </div>
      <div className="who flex items-center gap-1.5 mt-1.5 font-cond font-medium text-note text-ink-2 leading-none">
        <UserRound size={16} aria-hidden="true" />
        <span>{ticket.by}</span>
        <time className="ml-auto" dateTime={ticket.changedAt} suppressHydrationWarning>
          {formatDistanceToNowStrict(new Date(ticket.changedAt), { addSuffix: true })}
        </time>
      </div>
      {due && (
        <Link href={href} className="btn btn-accent relative mt-2.25 w-full justify-between">
          Resume {ticket.number} {ticket.rig}
          <ArrowRight size={20} aria-hidden="true" />
        </Link>
      )}
    </article>
  );
}

export function Board({ initial }: { initial: BoardPage }) {
  const client = useQueryClient();
  const live = useLive(
    useCallback(() => void client.invalidateQueries({ queryKey: ['board'], exact: true }), [client]),
  );
  const { data, error } = useQuery({
    queryKey: ['board'],
    queryFn: ({ client }) => fromServerOrCopy('board', () => fetchBoard(client.getQueryData(['board']))),
    initialData: initial,
    refetchInterval: live ? 30_000 : 5000,
  });
  useJobsAhead(data);
  const silentSince = useSilentSince('board');
  // Finished jobs further down: asked for, not polled.
  const older = useInfiniteQuery({
    queryKey: ['board', 'older', data.olderThan],
    queryFn: ({ pageParam }) => fetchOlder(pageParam),
    initialPageParam: data.olderThan ?? 0,
    getNextPageParam: (page) => page.olderThan,
    enabled: false,
  });
  const pages = older.data?.pages ?? [];
  const more = pages.length === 0 ? data.olderThan !== undefined : pages.at(-1)!.olderThan !== undefined;
  const all = [...data.tickets, ...pages.flatMap((p) => p.tickets)];
  const router = useRouter();
  const [search, setSearch] = useState('');
  const [theme, toggle] = useTheme();
  const needle = search.trim().toLowerCase();
  const found = useQuery({
    queryKey: ['search', needle],
    queryFn: () => searchShop(needle),
    enabled: needle.length >= 2,
    staleTime: 10_000,
  });
  const hits = needle.length >= 2 ? (found.data?.hits ?? []) : [];
  // A job stands on the board where its ticket, or anything in its record, holds the words.
  const tickets = all.filter(
    (t) =>
      `${t.number} ${t.rig} ${t.kind} ${t.complaint}`.toLowerCase().includes(needle) ||
      hits.some((h) => h.job === t.number),
  );
  const input = useRef<HTMLInputElement>(null);
  const [told, setTold] = useState<{ bad: boolean; words: string; job?: number }>();
  const takeIn = async (file: File) => {
    setTold({ bad: false, words: `Taking ${file.name} in …` });
    try {
      const r = await importJobFile(file);
      // What came in is looked at next; where something of it is missing, that is said first.
      if (!r.again && r.missing === 0) {
        router.push(`/jobs/${r.number}/intake`);
        return;
      }
      setTold({
        bad: false,
        job: r.number,
        words: r.again
          ? `This job is here already: ${r.number}.`
          : `Taken in as job ${r.number}${r.number === r.was ? '' : ` (it was ${r.was} where it came from)`}, ` +
            `with ${counted(r.photos, 'photo')}${r.logs > 0 ? ` and ${counted(r.logs, 'log')}` : ''}` +
            `${r.missing > 0 ? `; ${r.missing} ${r.missing === 1 ? 'was' : 'were'} not in the file` : ''}.`,
      });
    } catch (e) {
      setTold({ bad: true, words: `${file.name}: ${(e as Error).message}` });
    }
    if (input.current) input.current.value = '';
  };
  const [practicing, setPracticing] = useState(false);
  const practice = async () => {
    setPracticing(true);
    try {
      const { number } = await postOpenJob(practiceJob(crypto.randomUUID()));
      router.push(`/jobs/${number}/readings`);
    } catch (e) {
      setTold({ bad: true, words: (e as Error).message });
      setPracticing(false);
    }
  };
  const due = tickets.find((t) => t.status === 'in-the-bay') ?? tickets.find((t) => t.status === 'waiting');
  return (
    <div
      className={clsx(
        'app board',
        'grid grid-rows-bar',
        'h-dvh overflow-hidden',
        'max-phone:block max-phone:h-auto max-phone:overflow-visible',
      )}
    >
      <nav
        className={clsx(
          'rail',
          'flex row-span-2 flex-col',
          'min-h-0 overflow-y-auto border-r-2 border-ink bg-card',
          'max-phone:flex-row max-phone:border-r-0 max-phone:border-b-2 max-phone:border-ink',
        )}
        aria-label="Shop"
      >
        <span
          className={clsx(
            'word',
            'flex flex-none items-center justify-center gap-1.75',
            'h-14 border-b border-ink',
            'font-cond font-bold text-title text-ink no-underline',
            'max-phone:flex-1 max-phone:justify-start max-phone:pl-3.5 max-phone:border-0',
          )}
        >
          <LayoutList size={18} aria-hidden="true" />
          <span className="max-phone:within-word:inline max-narrow:within-word:hidden">Surrik</span>
        </span>
        <span
          className={clsx(
            'stn here',
            'grid flex-none items-center max-phone:hidden',
            'h-16.5 pl-1.5 border-b-1 border-rule bg-ink',
            'text-paper no-underline',
            'max-narrow:grid-cols-1 max-narrow:content-center max-narrow:justify-items-center',
            'max-narrow:gap-0.5 max-narrow:h-14.5 max-narrow:p-0',
          )}
          aria-current="page"
        >
          <span className="grid justify-items-center gap-0.75">
            <LayoutList size={20} aria-hidden="true" />
          </span>
          <span className="tx">
            <span className="t block font-cond font-bold text-lead leading-close within-here:text-paper">Jobs</span>
            <span
              className={clsx(
                'block',
                'mt-0.5',
                'font-cond font-medium text-note text-ink-2 leading-close',
                'max-narrow:hidden within-here:text-paper',
              )}
            >
              {Object.entries(data.counts).reduce((n, [status, c]) => (status === 'done' ? n : n + c), 0)} open
            </span>
          </span>
        </span>
        {DOORS.map(({ href, name, Icon }, i) => (
          <Link key={href} href={href} className={clsx(RAIL_BUTTON, i === 0 && 'sm:mt-auto')}>
            <Icon size={18} aria-hidden="true" />
            <span>{name}</span>
          </Link>
        ))}
        <button type="button" className={RAIL_BUTTON} onClick={toggle}>
          {theme === 'carbon' ? <Sun size={18} aria-hidden="true" /> : <Moon size={18} aria-hidden="true" />}
          <span>{theme === 'carbon' ? 'Light' : 'Dark'}</span>
        </button>
        <Link href="/switch" className={RAIL_BUTTON}>
          <UserRound size={18} aria-hidden="true" />
          <span>Switch</span>
        </Link>
        <form action={signOutAction} onSubmit={forgetDevice} className="contents">
          <button type="submit" className={RAIL_BUTTON}>
            <LogOut size={18} aria-hidden="true" />
            <span>Sign out</span>
          </button>
        </form>
      </nav>
      <header
        className={clsx(
          'top',
          'flex items-stretch gap-3',
          'min-w-0 pr-2.5 pl-3 py-1.25 border-b border-ink',
          'max-narrow:flex-wrap max-phone:flex-wrap max-phone:pr-3 max-phone:py-2',
        )}
      >
        <div
          className={clsx(
            'job',
            'flex items-center flex-none gap-2.25',
            'pr-3 border-r border-dashed border-rule',
            'max-narrow:min-h-11.5',
          )}
        >
          <span className="no font-cond font-bold text-display leading-none">Jobs</span>
          <span
            className={clsx(
              'max-w-47.5 overflow-hidden',
              'font-cond text-note text-ink-2 text-ellipsis leading-close whitespace-nowrap',
            )}
          >
            <b className="block text-large text-ink">{data.shop}</b>
            {data.actor}
          </span>
        </div>
        <label
          className={clsx(
            'search',
            'flex items-center flex-1 gap-2',
            'max-w-110 px-3 border border-ink rounded bg-card',
            'text-plain text-ink-2',
            'max-phone:basis-full max-phone:min-h-12',
          )}
        >
          <Search size={18} aria-hidden="true" />
          <input
            className="flex-1 min-w-0 h-full text-ink outline-none"
            type="search"
            placeholder="Number, rig, fault, part, note"
            aria-label="Search jobs"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
        </label>
        <button type="button" className="btn" onClick={() => input.current?.click()} aria-label="Take in a job file">
          <FileUp size={20} aria-hidden="true" />
          <span className="max-mid:hidden">Job file</span>
        </button>
        <input
          ref={input}
          type="file"
          className="sr-only"
          aria-label="Job file"
          accept=".zip,.json,.surrik"
          onChange={(e) => e.target.files?.[0] && void takeIn(e.target.files[0])}
        />
        <button
          type="button"
          className="btn"
          disabled={practicing}
          aria-label="Practice: a guided job on a made-up coach"
          onClick={() => void practice()}
        >
          <GraduationCap size={20} aria-hidden="true" />
          <span className="max-mid:hidden">{practicing ? 'Opening …' : 'Practice'}</span>
        </button>
        <Link href="/jobs/new" className="btn btn-neutral">
          <Plus size={20} aria-hidden="true" />
          New job
        </Link>
      </header>
      <main className="flex flex-col min-h-0 overflow-hidden max-mid:overflow-visible">
        {silentSince !== undefined && (
          <p role="status" className="notice">
            No answer from the server: the board as it stood at {format(silentSince, 'HH:mm, d MMM')}. Go on with the
            jobs that are on this device: what you enter is kept here and sent later.
          </p>
        )}
        {told && (
          <p
            className={clsx('mx-3 mt-2.5', 'is-bad:border-fail', told.bad ? 'notice bad' : 'notice')}
            role={told.bad ? 'alert' : 'status'}
          >
            {told.words} {told.job !== undefined && <Link href={`/jobs/${told.job}/readings`}>Open it</Link>}{' '}
            <button type="button" className="text-button" onClick={() => setTold(undefined)}>
              I have seen it
            </button>
          </p>
        )}
        {hits.length > 0 && (
          <section
            className="hits max-h-65 mx-3 mt-2.5 px-3.5 py-1.5 overflow-y-auto border-2 border-ink rounded bg-card"
            aria-label="Found in the records"
          >
            {hits.map((h, i) => (
              <p
                className="flex items-center gap-2.5 min-h-11 border-b-1 border-rule text-note leading-tight last:border-0"
                key={i}
              >
                <Link href={`/jobs/${h.job}/logbook`}>
                  {h.job} {h.rig}
                </Link>
                <span className="quiet">{h.where}</span>
                <span>{h.words}</span>
              </p>
            ))}
            {found.data?.more && <p>There is more: narrow your search.</p>}
          </section>
        )}
        <div className="grid grid-cols-4 flex-1 min-h-0 overflow-hidden max-phone:block">
          {error && (
            <p role="status" className="notice">
              The board may be out of date: {error.message}
            </p>
          )}
          {COLUMNS.map((column) => {
            const here = tickets.filter((t) => column.statuses.includes(t.status));
            return (
              <section
                key={column.title}
                className="flex flex-col min-h-0 min-w-0 border-r border-ink last:border-r-0 max-phone:border-r-0"
                aria-label={column.title}
              >
                <h2
                  className={clsx(
                    'flex justify-between items-baseline',
                    'px-3 pt-2.75 pb-2.25 border-b-2 border-ink',
                    'font-cond font-bold text-head leading-none',
                  )}
                >
                  {column.title}
                  <span className="font-semibold text-plain text-ink-2">
                    {needle ? here.length : column.statuses.reduce((n, s) => n + data.counts[s], 0)}
                  </span>
                </h2>
                <div className="grid content-start flex-1 gap-2.25 min-h-0 p-2.5 overflow-y-auto">
                  {here.map((t) => (
                    <Ticket key={t.number} ticket={t} due={t.number === due?.number} />
                  ))}
                  {column.title === 'Done' && more && (
                    <button
                      type="button"
                      className="btn w-full"
                      disabled={older.isFetching}
                      onClick={() => void (pages.length === 0 ? older.refetch() : older.fetchNextPage())}
                    >
                      {older.isFetching ? 'Looking …' : 'Older ones'}
                    </button>
                  )}
                  {here.length === 0 && (
                    <p className="quiet px-3 py-2.5">
                      {needle ? `Nothing here matches “${search.trim()}”.` : column.empty}
                    </p>
                  )}
                </div>
              </section>
            );
          })}
        </div>
      </main>
    </div>
  );
}
