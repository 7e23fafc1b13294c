'use client';
/** The job board: tickets by where they stand, the one that is due marked. */
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
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
import { useRef, useState } from 'react';
import { counted } from '@/core/units/counted';
import { fetchBoard, fetchOlder, importJobFile, postOpenJob, searchShop } from '@/client/api';
import { practiceJob } from '@/core/job/practiceJob';
import type { BoardPage, BoardTicket } from '@/server/job/board';
import { useTheme } from '@/ui/theme';
import { forgetDrafts } from '@/ui/draft';
import { fromServerOrCopy, forgetCopies } from '@/client/deviceCopy';
import { useSilentSince } from '@/client/useHeard';
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

function Ticket({ ticket, due }: { ticket: BoardTicket; due: boolean }) {
  const href =
    ticket.status === 'done'
      ? `/jobs/${ticket.number}/report`
      : `/jobs/${ticket.number}/${ticket.next.station.toLowerCase()}`;
  return (
    <article className={`tk${due ? ' due' : ''}`}>
      <div className="h">
        <b>
          <Link href={href}>{ticket.number}</Link>
        </b>
        <i>{ticket.rig}</i>
      </div>
      <p className="kind">{ticket.kind}</p>
      <p>{ticket.complaint}</p>
      <div className="nx">
        <ArrowRight size={17} aria-hidden="true" />
        <span>
          <b>{ticket.next.station}:</b> {ticket.next.words}
        </span>
      </div>
      <div className="who">
        <UserRound size={16} aria-hidden="true" />
        <span>{ticket.by}</span>
        <time dateTime={ticket.changedAt} suppressHydrationWarning>
          {formatDistanceToNowStrict(new Date(ticket.changedAt), { addSuffix: true })}
        </time>
      </div>
      {due && (
        <Link href={href} className="bx go wide">
          Resume {ticket.number} {ticket.rig}
          <ArrowRight size={20} aria-hidden="true" />
        </Link>
      )}
    </article>
  );
}

export function Board({ initial }: { initial: BoardPage }) {
  const { data, error } = useQuery({
    queryKey: ['board'],
    queryFn: ({ client }) => fromServerOrCopy('board', () => fetchBoard(client.getQueryData(['board']))),
    initialData: initial,
    refetchInterval: 5000,
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
    <div className="app board">
      <nav className="rail" aria-label="Shop">
        <span className="word">
          <LayoutList size={18} aria-hidden="true" />
          <span>Surrik</span>
        </span>
        <span className="stn here" aria-current="page">
          <span className="l">
            <LayoutList size={20} aria-hidden="true" />
          </span>
          <span className="tx">
            <span className="t">Jobs</span>
            <span className="m">
              {Object.entries(data.counts).reduce((n, [status, c]) => (status === 'done' ? n : n + c), 0)} open
            </span>
          </span>
        </span>
        <Link href="/calculators" className="railbtn">
          <Calculator size={18} aria-hidden="true" />
          <span>Calculators</span>
        </Link>
        <Link href="/calendar" className="railbtn">
          <CalendarDays size={18} aria-hidden="true" />
          <span>Bays</span>
        </Link>
        <Link href="/people" className="railbtn">
          <Users size={18} aria-hidden="true" />
          <span>People</span>
        </Link>
        <Link href="/shop" className="railbtn">
          <Settings2 size={18} aria-hidden="true" />
          <span>Shop</span>
        </Link>
        <button type="button" className="railbtn" onClick={toggle}>
          {theme === 'carbon' ? <Sun size={18} aria-hidden="true" /> : <Moon size={18} aria-hidden="true" />}
          <span>{theme === 'carbon' ? 'Light' : 'Dark'}</span>
        </button>
        <form action={signOutAction} onSubmit={forgetDevice} className="railform">
          <button type="submit" className="railbtn">
            <LogOut size={18} aria-hidden="true" />
            <span>Sign out</span>
          </button>
        </form>
      </nav>
      <header className="top">
        <div className="job">
          <span className="no">Jobs</span>
          <span className="nm">
            <b>{data.shop}</b>
            {data.actor}
          </span>
        </div>
        <label className="search">
          <Search size={18} aria-hidden="true" />
          <input
            type="search"
            placeholder="Number, rig, fault, part, note"
            aria-label="Search jobs"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
        </label>
        <button type="button" className="bx" onClick={() => input.current?.click()} aria-label="Take in a job file">
          <FileUp size={20} aria-hidden="true" />
          <span className="wide-only">Job file</span>
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
          className="bx"
          disabled={practicing}
          aria-label="Practice: a guided job on a made-up coach"
          onClick={() => void practice()}
        >
          <GraduationCap size={20} aria-hidden="true" />
          <span className="wide-only">{practicing ? 'Opening …' : 'Practice'}</span>
        </button>
        <Link href="/jobs/new" className="bx ink">
          <Plus size={20} aria-hidden="true" />
          New job
        </Link>
      </header>
      <main className="boardmain">
        {silentSince !== undefined && (
          <p role="status" className="notice">
            No answer from the server: the board as it stood at {format(silentSince, 'HH:mm, d MMM')}. Go on with the
            jobs that are on this device: what you enter is kept here and sent later.
          </p>
        )}
        {told && (
          <p className={told.bad ? 'notice bad' : 'notice'} role={told.bad ? 'alert' : 'status'}>
            {told.words} {told.job !== undefined && <Link href={`/jobs/${told.job}/readings`}>Open it</Link>}{' '}
            <button type="button" className="inline" onClick={() => setTold(undefined)}>
              I have seen it
            </button>
          </p>
        )}
        {hits.length > 0 && (
          <section className="hits" aria-label="Found in the records">
            {hits.map((h, i) => (
              <p key={i}>
                <Link href={`/jobs/${h.job}/logbook`}>
                  {h.job} {h.rig}
                </Link>
                <span className="quiet">{h.where}</span>
                <span>{h.words}</span>
              </p>
            ))}
            {found.data?.more && <p className="quiet">There is more: narrow your search.</p>}
          </section>
        )}
        <div className="cols">
          {error && (
            <p role="status" className="notice">
              The board may be out of date: {error.message}
            </p>
          )}
          {COLUMNS.map((column) => {
            const here = tickets.filter((t) => column.statuses.includes(t.status));
            return (
              <section key={column.title} className="col" aria-label={column.title}>
                <h2>
                  {column.title}
                  <span>{needle ? here.length : column.statuses.reduce((n, s) => n + data.counts[s], 0)}</span>
                </h2>
                <div>
                  {here.map((t) => (
                    <Ticket key={t.number} ticket={t} due={t.number === due?.number} />
                  ))}
                  {column.title === 'Done' && more && (
                    <button
                      type="button"
                      className="bx wide"
                      disabled={older.isFetching}
                      onClick={() => void (pages.length === 0 ? older.refetch() : older.fetchNextPage())}
                    >
                      {older.isFetching ? 'Looking …' : 'Older ones'}
                    </button>
                  )}
                  {here.length === 0 && (
                    <p className="quiet pad">{needle ? `Nothing here matches “${search.trim()}”.` : column.empty}</p>
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
