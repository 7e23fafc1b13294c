'use client';
/** A shared tablet changes hands: a name, a PIN, and on where one was. */
import { Delete, UserRound } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useState, useTransition } from 'react';
import { takeOverAction } from '@/app/sign-in/actions';
import { ROLES } from '@/core/people/roles';
import type { Known } from '@/server/quickSwitch';
import { DoorCard } from '@/ui/DoorCard';
import { forgetDrafts } from '@/ui/draft';

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const;
const KEY = 'btn h-14 font-cond text-title font-bold';

export function SwitchPage({ people, now, to }: { people: readonly Known[]; now: string | undefined; to: string }) {
  const [who, setWho] = useState<Known>();
  return (
    <DoorCard title={who ? who.name : 'Who is here?'}>
      {who ? (
        <Pin person={who} to={to} back={() => setWho(undefined)} />
      ) : (
        <>
          {people.length > 0 ? (
            <ul className="m-0 grid list-none gap-2 p-0">
              {people.map((p) => (
                <li key={p.id}>
                  <button type="button" className="btn h-14 w-full justify-start gap-3" onClick={() => setWho(p)}>
                    <UserRound size={22} aria-hidden="true" />
                    <span className="grid text-left leading-close">
                      <b className="text-large">{p.name}</b>
                      <span className="text-note font-normal">
                        {ROLES.find((r) => r.id === p.role)!.label}
                        {p.name === now && ', signed in now'}
                      </span>
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          ) : (
            <p className="m-0">
              Nobody can take this device over with a PIN yet. Sign in once with name and password, then set a PIN under{' '}
              {now ? <Link href="/me">Your sign-in</Link> : 'People, Your sign-in'}.
            </p>
          )}
          <Link href="/sign-in" className="btn">
            Name and password
          </Link>
          {now && (
            <Link href={to} className="btn btn-neutral">
              Stay {now}
            </Link>
          )}
        </>
      )}
    </DoorCard>
  );
}

/** Keys a thumb finds; a keyboard does as well. */
function Pin({ person, to, back }: { person: Known; to: string; back(): void }) {
  const [pin, setPin] = useState('');
  const [message, setMessage] = useState<string>();
  const [busy, start] = useTransition();
  const add = (digit: string) => setPin((was) => (was.length < 8 ? was + digit : was));
  const send = () => {
    if (pin.length < 4 || busy) return;
    start(async () => {
      // What was being written is the other's.
      forgetDrafts();
      const no = await takeOverAction(person.id, pin);
      // A page made anew: nothing in it was asked for by whoever was here before.
      if (!no) return location.assign(to);
      setPin('');
      setMessage(no.message);
    });
  };
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if (/^\d$/.test(e.key)) add(e.key);
      else if (e.key === 'Backspace') setPin((was) => was.slice(0, -1));
      else if (e.key === 'Enter' && !(e.target instanceof HTMLButtonElement)) send();
      else if (e.key === 'Escape') back();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
  return (
    <>
      <p
        className="m-0 flex h-12 items-center justify-center gap-2 border-b-2 border-ink"
        role="status"
        aria-label={`${pin.length} digits entered`}
      >
        {[...pin].map((_, i) => (
          <span key={i} className="size-4 rounded-full bg-ink" />
        ))}
      </p>
      {message && (
        <p role="alert" className="alert alert-error alert-outline">
          {message}
        </p>
      )}
      <div className="grid grid-cols-3 gap-2">
        {KEYS.map((k) => (
          <button key={k} type="button" className={KEY} onClick={() => add(k)}>
            {k}
          </button>
        ))}
        <button type="button" className={KEY} onClick={() => setPin((was) => was.slice(0, -1))} aria-label="Delete">
          <Delete size={22} aria-hidden="true" />
        </button>
        <button type="button" className={KEY} onClick={() => add('0')}>
          0
        </button>
        <button
          type="button"
          className="btn btn-accent h-14 font-bold"
          disabled={busy || pin.length < 4}
          onClick={send}
        >
          {busy ? 'One moment' : 'Go'}
        </button>
      </div>
      <button type="button" className="btn" onClick={back}>
        Somebody else
      </button>
    </>
  );
}
