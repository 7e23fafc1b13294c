'use client';
/** One's own sign-in: a code beside the password, a PIN for tablets one shares, and out everywhere. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { LogOut, Printer } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { fetchOwnSignIn, postOwnSignIn } from '@/client/api';
import type { ApiAnswer } from '@/core/openFormats/answers';
import type { OwnSignInChange } from '@/core/people/ownSignInSchema';
import { ROLES } from '@/core/people/roles';
import { signOutEverywhereAction } from '@/app/sign-in/actions';
import { PageTop } from '@/ui/PageTop';
import { Trouble } from '@/ui/Trouble';

type Changed = ApiAnswer<'ownSignInChanged'>;
const CARD = 'bg-card border-rule grid content-start gap-3 rounded border p-4';

export function MePage() {
  const client = useQueryClient();
  const { data, error } = useQuery({ queryKey: ['me'], queryFn: fetchOwnSignIn });
  const [shown, setShown] = useState<Changed>({});
  const change = useMutation({
    mutationFn: postOwnSignIn,
    onSuccess: (changed) => {
      setShown(changed);
      return client.invalidateQueries({ queryKey: ['me'] });
    },
  });
  const does = (what: OwnSignInChange) => change.mutate(what);
  const busy = change.isPending;
  return (
    <div className="flex h-dvh flex-col">
      <PageTop
        title="Your sign-in"
        name={data?.name ?? ''}
        sub={data ? ROLES.find((r) => r.id === data.role)!.label : ''}
      >
        <form action={signOutEverywhereAction}>
          <button type="submit" className="btn">
            <LogOut size={20} aria-hidden="true" />
            Sign me out everywhere
          </button>
        </form>
      </PageTop>
      {(error ?? change.error) && <Trouble>{(error ?? change.error)!.message}</Trouble>}
      {data ? (
        <main className="grid min-h-0 flex-1 content-start gap-4 overflow-y-auto p-3 lg:grid-cols-2">
          <section aria-labelledby="second" className={CARD}>
            <h2 id="second" className="m-0 text-lg font-semibold">
              A code from your phone <Standing on={data.second} />
            </h2>
            {shown.codes ? (
              <PaperCodes codes={shown.codes} done={() => setShown({})} />
            ) : shown.picture ? (
              <ReadByPhone shown={shown} busy={busy} does={does} />
            ) : data.second ? (
              <>
                <p className="m-0">
                  After your password you are asked for the code of the minute. {data.paper} of your codes on paper{' '}
                  {data.paper === 1 ? 'is' : 'are'} left.
                </p>
                <WithPassword
                  says="Ask for no code any more"
                  busy={busy}
                  does={(p) => does({ do: 'second-off', password: p })}
                />
              </>
            ) : (
              <>
                <p className="m-0">
                  Whoever learns your password cannot sign in without your phone. Any app that makes six-digit codes by
                  the clock will do; it needs no network.
                </p>
                <WithPassword says="Set it up" busy={busy} does={(p) => does({ do: 'second-begin', password: p })} />
              </>
            )}
          </section>
          <section aria-labelledby="pin" className={CARD}>
            <h2 id="pin" className="m-0 text-lg font-semibold">
              A PIN for shared tablets <Standing on={data.pin} />
            </h2>
            <p className="m-0">
              On a tablet where you have signed in with your password, the PIN takes it over for two weeks: what is
              entered then is yours. Five wrong ones, and the password is asked for again.
            </p>
            <SetPin has={data.pin} busy={busy} does={does} />
          </section>
        </main>
      ) : (
        !error && (
          <p role="status" className="p-3">
            Looking how you sign in …
          </p>
        )
      )}
    </div>
  );
}

const Standing = ({ on }: { on: boolean }) => (
  <span className={`badge ${on ? 'badge-success' : ''}`}>{on ? 'on' : 'off'}</span>
);

function Password({ value, set }: { value: string; set(v: string): void }) {
  return (
    <label className="field">
      <span>Your password, once more</span>
      <input
        type="password"
        className="input"
        autoComplete="current-password"
        required
        value={value}
        onChange={(e) => set(e.target.value)}
      />
    </label>
  );
}

/** A step that wants the password again. */
function WithPassword({ says, busy, does }: { says: string; busy: boolean; does(password: string): void }) {
  const [password, setPassword] = useState('');
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        does(password);
        setPassword('');
      }}
    >
      <Password value={password} set={setPassword} />
      <button type="submit" className="btn" disabled={busy}>
        {says}
      </button>
    </form>
  );
}

function ReadByPhone({ shown, busy, does }: { shown: Changed; busy: boolean; does(what: OwnSignInChange): void }) {
  const [code, setCode] = useState('');
  return (
    <form
      className="flex flex-wrap gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        does({ do: 'second-confirm', code: code.trim() });
        setCode('');
      }}
    >
      {/* A picture made for this one moment: nothing a server of pictures could make smaller. */}
      {/* eslint-disable-next-line @next/next/no-img-element */}
      <img src={shown.picture} alt="The secret, for the camera of a phone" className="size-48 bg-white" />
      <div className="grid min-w-64 flex-1 content-start gap-3">
        <p className="m-0">Point the phone’s app at the picture, or type this into it:</p>
        <code className="break-all text-lg">{shown.secret!.match(/.{1,4}/g)!.join(' ')}</code>
        <label className="field">
          <span>The code it shows now</span>
          <input
            className="input"
            inputMode="numeric"
            autoComplete="one-time-code"
            pattern="\d{3}\s?\d{3}"
            title="six digits"
            required
            value={code}
            onChange={(e) => setCode(e.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-accent" disabled={busy}>
          Ask me for a code from now on
        </button>
      </div>
    </form>
  );
}

/** Shown this once. */
function PaperCodes({ codes, done }: { codes: readonly string[]; done(): void }) {
  return (
    <div role="status" className="grid gap-3">
      <p className="m-0">
        <b>For the day the phone is lost: print these, or write them down, and keep them where you keep keys.</b> Each
        lets you in once, in place of a code. They are shown this once.
      </p>
      <ul className="m-0 grid list-none grid-cols-2 gap-x-6 gap-y-1 p-0 font-mono text-lg">
        {codes.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
      <div className="flex gap-3 print:hidden">
        <button type="button" className="btn" onClick={() => window.print()}>
          <Printer size={20} aria-hidden="true" />
          Print
        </button>
        <button type="button" className="btn btn-accent" onClick={done}>
          I have them
        </button>
      </div>
    </div>
  );
}

function SetPin({ has, busy, does }: { has: boolean; busy: boolean; does(what: OwnSignInChange): void }) {
  const [pin, setPin] = useState('');
  const [password, setPassword] = useState('');
  const forget = (): ReactNode => (
    <button
      type="button"
      className="btn"
      disabled={busy || password === ''}
      onClick={() => {
        does({ do: 'pin-off', password });
        setPassword('');
      }}
    >
      Take it away
    </button>
  );
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        does({ do: 'pin', pin, password });
        setPin('');
        setPassword('');
      }}
    >
      <label className="field">
        <span>{has ? 'A new PIN' : 'PIN'}, four to eight digits</span>
        <input
          type="password"
          className="input"
          inputMode="numeric"
          autoComplete="off"
          pattern="\d{4,8}"
          title="four to eight digits"
          required
          value={pin}
          onChange={(e) => setPin(e.target.value)}
        />
      </label>
      <Password value={password} set={setPassword} />
      <button type="submit" className="btn btn-accent" disabled={busy}>
        {has ? 'Change it' : 'Set it'}
      </button>
      {has && forget()}
    </form>
  );
}
