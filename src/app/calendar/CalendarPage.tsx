'use client';
/** The week in the bays: what is booked, what is too much, what has no time yet; follow-ups that fall due. */
import { clsx } from 'clsx';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { addDays, addWeeks, format, isSameDay, startOfWeek } from 'date-fns';
import { CalendarPlus, ChevronLeft, ChevronRight, TriangleAlert } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import { fetchCalendar, sendToJob } from '@/client/api';
import { bayDay, type BayDay } from '@/core/shop/bayLoad';
import type { ShopCalendar } from '@/server/job/history';
import { PageTop } from '@/ui/PageTop';

type Booked = ShopCalendar['bookings'][number];

const minuteOf = (at: Date): number => at.getHours() * 60 + at.getMinutes();
const hours = (minutes: number): string => `${(minutes / 60).toFixed(minutes % 60 === 0 ? 0 : 1)} h`;

export function CalendarPage({ job }: { job?: number }) {
  const client = useQueryClient();
  const { data, error } = useQuery({ queryKey: ['calendar'], queryFn: fetchCalendar, refetchInterval: 15_000 });
  const [week, setWeek] = useState(0);
  const [trouble, setTrouble] = useState<string>();
  const [open, setOpen] = useState<Booked>();
  const monday = addWeeks(startOfWeek(new Date(), { weekStartsOn: 1 }), week);
  const days = Array.from({ length: 7 }, (_, i) => addDays(monday, i)).filter(
    (d) => data?.hours.days.includes(d.getDay()) || data?.bookings.some((b) => isSameDay(new Date(b.start), d)),
  );
  const change = (work: Promise<void>) =>
    work.then(
      () => {
        setTrouble(undefined);
        setOpen(undefined);
        return client.invalidateQueries({ queryKey: ['calendar'] });
      },
      (e: Error) => setTrouble(e.message),
    );
  const load = (day: Date): BayDay[] =>
    (data?.bays ?? []).map((bay) =>
      bayDay(
        bay,
        data!.bookings
          .filter((b) => isSameDay(new Date(b.start), day))
          .map((b) => ({ id: b.id, bay: b.bay, from: minuteOf(new Date(b.start)), minutes: b.minutes })),
        data!.hours.days.includes(day.getDay()) ? data!.hours : undefined,
      ),
    );
  const due = data?.followUps.filter((f) => f.done === undefined) ?? [];
  return (
    <div className="newjob calendar-page grid h-dvh overflow-hidden">
      <PageTop
        title="Bays"
        name={`Week of ${format(monday, 'd MMM yyyy')}`}
        sub={data ? `${data.bays.length} bays, ${data.hours.from}:00 to ${data.hours.to}:00` : ''}
      >
        <button type="button" className="btn" onClick={() => setWeek(week - 1)} aria-label="Week before">
          <ChevronLeft size={20} aria-hidden="true" />
        </button>
        <button type="button" className="btn" onClick={() => setWeek(0)}>
          This week
        </button>
        <button type="button" className="btn" onClick={() => setWeek(week + 1)} aria-label="Week after">
          <ChevronRight size={20} aria-hidden="true" />
        </button>
        <a className="btn" href="/api/calendar.ics" download>
          <CalendarPlus size={20} aria-hidden="true" /> Calendar file
        </a>
      </PageTop>
      {(error ?? trouble) && (
        <p className="notice" role="alert">
          {trouble ?? (error as Error).message}
        </p>
      )}
      {!data ? (
        !error && (
          <p className="boot" role="status">
            Opening the bays …
          </p>
        )
      ) : (
        <main className="cal grid gap-0 min-h-0 h-full overflow-hidden max-lg:grid-cols-1 max-lg:overflow-auto">
          <div
            className="grid content-start overflow-auto"
            style={{ gridTemplateColumns: `84px repeat(${days.length}, minmax(150px, 1fr))` }}
          >
            <div className="sticky top-0 z-1 px-2.5 py-2 border-b-2 border-ink bg-paper font-cond font-bold text-large" />
            {days.map((d) => (
              <div
                key={d.toISOString()}
                className={clsx(
                  'sticky top-0 z-1',
                  'px-2.5 py-2 border-b-2 border-ink bg-paper',
                  'font-cond font-bold text-large',
                  'is-today:bg-ink is-today:text-paper',
                  `${isSameDay(d, new Date()) ? ' today' : ''}`,
                )}
              >
                {format(d, 'EEE d MMM')}
              </div>
            ))}
            {data.bays.map((bay) => (
              <Row
                key={bay}
                bay={bay}
                days={days}
                bookings={data.bookings.filter((b) => b.bay === bay)}
                load={(d) => load(d).find((x) => x.bay === bay)!}
                open={setOpen}
              />
            ))}
          </div>
          <div
            className={clsx(
              'calside',
              'grid content-start gap-4.5',
              'px-4 py-3 overflow-y-auto border-l-2 border-ink',
              'max-lg:border-l-0 max-lg:border-t-2 max-lg:border-ink',
            )}
          >
            <BookForm
              key={open?.id ?? 'new'}
              data={data}
              job={job}
              now={open}
              monday={monday}
              change={(w) => void change(w)}
              cancel={() => setOpen(undefined)}
            />
            <section aria-label="Follow-ups">
              <h2 className="mb-1.5 font-cond font-bold text-head">Follow-ups</h2>
              {due.length === 0 && <p>Nothing falls due. They are set in a job’s Logbook.</p>}
              {due.slice(0, 12).map((f) => (
                <p
                  key={f.id}
                  className={clsx(
                    'py-0.75',
                    'text-note leading-tight',
                    f.due < format(new Date(), 'yyyy-MM-dd') ? 'late' : '',
                  )}
                >
                  <b>{format(new Date(`${f.due}T00:00:00`), 'd MMM yyyy')}</b>{' '}
                  <Link href={`/jobs/${f.job}/logbook`}>
                    {f.job} {f.rig}
                  </Link>
                  : {f.what}
                  {f.due < format(new Date(), 'yyyy-MM-dd') ? ', overdue' : ''}
                </p>
              ))}
            </section>
          </div>
        </main>
      )}
    </div>
  );
}

function Row({
  bay,
  days,
  bookings,
  load,
  open,
}: {
  bay: string;
  days: readonly Date[];
  bookings: readonly Booked[];
  load(day: Date): BayDay;
  open(b: Booked): void;
}) {
  return (
    <>
      <div
        className={clsx(
          'static top-0 z-1',
          'px-2.5 py-2 border-r-2 border-b-1 border-r-ink border-b-rule bg-paper',
          'font-cond font-bold text-large',
        )}
      >
        {bay}
      </div>
      {days.map((d) => {
        const here = bookings.filter((b) => isSameDay(new Date(b.start), d));
        const l = load(d);
        const bad = new Set([...l.clashes.flat(), ...l.outside]);
        return (
          <div
            key={d.toISOString()}
            className="calcell grid content-start gap-1.25 min-h-32.5 p-1.5 border-r-1 border-b-1 border-rule"
          >
            {here.map((b) => (
              <button
                key={b.id}
                type="button"
                className={clsx(
                  'grid',
                  'min-h-12 px-2 py-1.5 border border-ink rounded bg-card',
                  'text-left text-note leading-close',
                  'is-bad:border-3 is-bad:bg-warn-tint',
                  `calitem${bad.has(b.id) ? ' bad' : ''}`,
                )}
                onClick={() => open(b)}
              >
                <b className="font-cond text-lead">
                  {format(new Date(b.start), 'HH:mm')} {b.job} {b.rig}
                </b>
                <small className="text-ink-2 text-fine">{hours(b.minutes)}</small>
              </button>
            ))}
            {here.length > 0 && (
              <p
                className={clsx(
                  'is-over:font-semibold is-over:text-warn is-over:text-note',
                  l.over > 0 || bad.size > 0 ? 'over' : 'quiet',
                )}
              >
                {(l.over > 0 || bad.size > 0) && <TriangleAlert size={14} aria-hidden="true" />} {hours(l.booked)} of{' '}
                {hours(l.open)}
                {l.over > 0 ? `: ${hours(l.over)} too much` : ''}
                {l.clashes.length > 0 ? ', two at one time' : ''}
                {l.outside.length > 0 ? ', outside the hours' : ''}
              </p>
            )}
          </div>
        );
      })}
    </>
  );
}

function BookForm({
  data,
  job,
  now,
  monday,
  change,
  cancel,
}: {
  data: ShopCalendar;
  job: number | undefined;
  now: Booked | undefined;
  monday: Date;
  change(work: Promise<void>): void;
  cancel(): void;
}) {
  const start = now ? new Date(now.start) : undefined;
  const known = data.unbooked.find((u) => u.job === job);
  const first = known ?? data.unbooked[0];
  const [which, setWhich] = useState(now?.job ?? job ?? first?.job);
  const [bay, setBay] = useState(now?.bay ?? data.bays[0]!);
  const [day, setDay] = useState(format(start ?? (monday > new Date() ? monday : new Date()), 'yyyy-MM-dd'));
  const [time, setTime] = useState(start ? format(start, 'HH:mm') : `${String(data.hours.from).padStart(2, '0')}:00`);
  const [minutes, setMinutes] = useState(
    String(now?.minutes ?? data.unbooked.find((u) => u.job === which)?.minutes ?? 120),
  );
  const at = new Date(`${day}T${time}:00`);
  const length = Math.round(Number(minutes));
  const valid = which !== undefined && !Number.isNaN(at.getTime()) && length >= 5 && length <= 6000;
  // Told before it is booked, not after.
  const others = data.bookings
    .filter((b) => b.id !== now?.id && isSameDay(new Date(b.start), at))
    .map((b) => ({ id: b.id, bay: b.bay, from: minuteOf(new Date(b.start)), minutes: b.minutes }));
  const told = valid
    ? bayDay(
        bay,
        [...others, { id: 'this', bay, from: minuteOf(at), minutes: length }],
        data.hours.days.includes(at.getDay()) ? data.hours : undefined,
      )
    : undefined;
  const save = () => {
    if (!valid) return;
    change(
      sendToJob(which, 'booking.set', (actor, fresh) => {
        const was = now && fresh.bookings?.find((b) => b.id === now.id);
        return {
          ...(was ? { was } : {}),
          set: {
            id: now?.id ?? crypto.randomUUID(),
            bay,
            start: at.toISOString(),
            minutes: length,
            by: was?.by ?? actor,
          },
        };
      }),
    );
  };
  const remove = () =>
    now &&
    change(sendToJob(now.job, 'booking.set', (_, fresh) => ({ was: fresh.bookings!.find((b) => b.id === now.id)! })));
  if (which === undefined && !now)
    return (
      <section aria-label="Book">
        <h2>Book</h2>
        <p>Every open job has its time.</p>
      </section>
    );
  return (
    <section aria-label="Book">
      <h2 className="mb-1.5 font-cond font-bold text-head">
        {now ? `Booking of ${now.job} ${now.rig}` : 'Book a bay'}
      </h2>
      <form
        className="grid gap-2.5"
        onSubmit={(e) => {
          e.preventDefault();
          save();
        }}
      >
        {!now && (
          <label className="field">
            <span>Job</span>
            <select
              className="select min-h-12"
              value={which}
              onChange={(e) => {
                const picked = Number(e.target.value);
                setWhich(picked);
                setMinutes(String(data.unbooked.find((u) => u.job === picked)?.minutes ?? 120));
              }}
            >
              {[
                ...data.unbooked.map((u) => [u.job, u.rig] as const),
                ...(job !== undefined && !known ? [[job, ''] as const] : []),
              ].map(([n, rig]) => (
                <option key={n} value={n}>
                  {n} {rig}
                </option>
              ))}
            </select>
          </label>
        )}
        <label className="field">
          <span>Bay</span>
          <select className="select min-h-12" value={bay} onChange={(e) => setBay(e.target.value)}>
            {[...new Set([...data.bays, bay])].map((b) => (
              <option key={b}>{b}</option>
            ))}
          </select>
        </label>
        <div className="two grid grid-cols-2 gap-x-3 gap-y-2">
          <label className="field">
            <span>Day</span>
            <input className="input" type="date" value={day} onChange={(e) => setDay(e.target.value)} />
          </label>
          <label className="field">
            <span>From</span>
            <input className="input" type="time" step={900} value={time} onChange={(e) => setTime(e.target.value)} />
          </label>
        </div>
        <label className="field">
          <span>Minutes</span>
          <input
            className="input"
            inputMode="numeric"
            value={minutes}
            aria-invalid={!(length >= 5 && length <= 6000)}
            onChange={(e) => setMinutes(e.target.value)}
          />
        </label>
        {told && (told.over > 0 || told.clashes.length > 0 || told.outside.includes('this')) && (
          <p className="over py-0.75 font-semibold text-note text-warn leading-tight" role="status">
            <TriangleAlert size={15} aria-hidden="true" />{' '}
            {told.clashes.some((c) => c.includes('this')) ? 'Another rig stands there then. ' : ''}
            {told.over > 0 ? `The day has ${hours(told.open)}, this makes ${hours(told.booked)}. ` : ''}
            {told.outside.includes('this') ? 'It is outside the shop’s hours. ' : ''}It can be booked all the same.
          </p>
        )}
        <div className="row flex flex-wrap gap-2">
          <button type="submit" className="btn next btn-accent" disabled={!valid}>
            <span>{now ? 'Move it' : 'Book it'}</span>
          </button>
          {now && (
            <>
              <button type="button" className="btn" onClick={remove}>
                Take it out
              </button>
              <button type="button" className="btn" onClick={cancel}>
                Leave it
              </button>
            </>
          )}
        </div>
      </form>
    </section>
  );
}
