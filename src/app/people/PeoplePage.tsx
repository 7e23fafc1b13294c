'use client';
/** Who works in the shop and what each may do; the owner changes it. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { Check, Copy, KeyRound } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import { fetchPeople, postPeople } from '@/client/api';
import type { ApiAnswer } from '@/core/openFormats/answers';
import type { PeopleChange } from '@/core/people/peopleSchema';
import { ACTS, may, ROLES, whoMay, type Act, type Role } from '@/core/people/roles';
import { PageTop } from '@/ui/PageTop';
import { Trouble } from '@/ui/Trouble';

type Person = ApiAnswer<'people'>['people'][number];
const label = (role: Role): string => ROLES.find((r) => r.id === role)!.label;

export function PeoplePage() {
  const client = useQueryClient();
  const { data, error } = useQuery({ queryKey: ['people'], queryFn: fetchPeople });
  const [link, setLink] = useState<{ name: string; url: string }>();
  const change = useMutation({
    mutationFn: ({ what }: { what: PeopleChange; name: string }) => postPeople(what),
    onSuccess: ({ invitation }, { name }) => {
      setLink(invitation === undefined ? undefined : { name, url: `${location.origin}${invitation}` });
      return client.invalidateQueries({ queryKey: ['people'] });
    },
  });
  const mine = data !== undefined && may(data.actor.role, 'people');
  const does = (what: PeopleChange, name: string) => change.mutate({ what, name });
  return (
    <div className="flex h-dvh flex-col">
      <PageTop
        title="People"
        name={data ? `${data.people.filter((p) => p.active).length} at work` : ''}
        sub={data?.actor.name ?? ''}
      >
        <Link href="/me" className="btn">
          <KeyRound size={20} aria-hidden="true" />
          Your sign-in
        </Link>
      </PageTop>
      {(error ?? change.error) && <Trouble>{(error ?? change.error)!.message}</Trouble>}
      {link && <Invitation {...link} onDone={() => setLink(undefined)} />}
      <main className="grid min-h-0 flex-1 content-start gap-4 overflow-y-auto p-3 lg:grid-cols-3">
        <section aria-label="Who works here" className="lg:col-span-2">
          {data ? (
            <ul className="m-0 flex list-none flex-col gap-2 p-0">
              {data.people.map((p) => (
                <PersonCard
                  key={p.id}
                  person={p}
                  mine={mine}
                  busy={change.isPending}
                  does={(what) => does(what, p.name)}
                />
              ))}
            </ul>
          ) : (
            !error && <p role="status">Looking who works here …</p>
          )}
          {mine && <AddPerson busy={change.isPending} does={does} />}
          {data && !mine && <p>To change this is for {whoMay('people')}.</p>}
        </section>
        <section aria-label="What each may do" className="bg-card border-rule rounded border p-3">
          <WhatEachMay />
          {mine && data.acts.length > 0 && (
            <details className="mt-4">
              <summary className="cursor-pointer font-semibold">What was done to people</summary>
              <ul className="mt-2 flex list-none flex-col gap-1 p-0 text-sm">
                {data.acts.map((a, i) => (
                  <li key={i}>
                    {format(new Date(a.at), 'd MMM yyyy, HH:mm')}: <b>{a.of}</b> {a.act}, by {a.by}
                  </li>
                ))}
              </ul>
            </details>
          )}
        </section>
      </main>
    </div>
  );
}

interface PersonCardProps {
  person: Person;
  mine: boolean;
  busy: boolean;
  does(what: PeopleChange): void;
}

function PersonCard({ person: p, mine, busy, does }: PersonCardProps) {
  const seen = p.invited
    ? 'invited, no password yet'
    : p.seen
      ? `last signed in ${format(new Date(p.seen), 'd MMM, HH:mm')}`
      : 'never signed in';
  return (
    <li
      className={`bg-card border-rule flex flex-wrap items-center gap-2 rounded border p-3 ${p.active ? '' : 'opacity-70'}`}
    >
      <span className="min-w-52 flex-1">
        <b className="block text-lg">{p.name}</b>
        <span className="text-sm">
          {p.handle} · {p.active ? seen : 'let go, may not sign in'}
          {p.second && ' · with a code'}
        </span>
      </span>
      {mine && p.active ? (
        <label>
          <span className="sr-only">Role of {p.name}</span>
          <select
            className="select w-36"
            value={p.role}
            disabled={busy}
            onChange={(e) => does({ do: 'role', person: p.id, role: e.target.value as Role })}
          >
            {ROLES.map((r) => (
              <option key={r.id} value={r.id}>
                {r.label}
              </option>
            ))}
          </select>
        </label>
      ) : (
        <span className="badge badge-lg">{label(p.role)}</span>
      )}
      {mine && p.active && (
        <>
          <button
            type="button"
            className="btn btn-sm"
            disabled={busy}
            onClick={() => does({ do: 'invite', person: p.id })}
          >
            New link
          </button>
          <button
            type="button"
            className="btn btn-sm"
            disabled={busy}
            onClick={() => does({ do: 'sign-out', person: p.id })}
          >
            Sign out
          </button>
          {p.second && (
            <button
              type="button"
              className="btn btn-sm"
              disabled={busy}
              onClick={() => does({ do: 'second-off', person: p.id })}
            >
              Ask for no code
            </button>
          )}
          <button
            type="button"
            className="btn btn-sm"
            disabled={busy}
            onClick={() => does({ do: 'let-go', person: p.id })}
          >
            Let go
          </button>
        </>
      )}
      {mine && !p.active && (
        <button
          type="button"
          className="btn btn-sm"
          disabled={busy}
          onClick={() => does({ do: 'take-back', person: p.id })}
        >
          Take back
        </button>
      )}
    </li>
  );
}

function AddPerson({ busy, does }: { busy: boolean; does(what: PeopleChange, name: string): void }) {
  const [name, setName] = useState('');
  const [handle, setHandle] = useState('');
  const [role, setRole] = useState<Role>('technician');
  return (
    <form
      className="bg-card border-rule mt-4 flex flex-wrap items-end gap-3 rounded border p-3"
      aria-label="Somebody new"
      onSubmit={(e) => {
        e.preventDefault();
        does({ do: 'add', name: name.trim(), handle: handle.trim().toLowerCase(), role }, name.trim());
        setName('');
        setHandle('');
      }}
    >
      <label className="field min-w-48 flex-1">
        <span>Name, as records shall say it</span>
        <input className="input" maxLength={60} required value={name} onChange={(e) => setName(e.target.value)} />
      </label>
      <label className="field min-w-40">
        <span>Signs in as</span>
        <input
          className="input"
          maxLength={60}
          required
          pattern="[A-Za-z0-9][A-Za-z0-9._@\-]+"
          title="two or more letters, digits and . _ @ -"
          autoCapitalize="none"
          value={handle}
          onChange={(e) => setHandle(e.target.value)}
        />
      </label>
      <label className="field">
        <span>Role</span>
        <select className="select" value={role} onChange={(e) => setRole(e.target.value as Role)}>
          {ROLES.map((r) => (
            <option key={r.id} value={r.id}>
              {r.label}
            </option>
          ))}
        </select>
      </label>
      <button type="submit" className="btn btn-accent" disabled={busy}>
        Add and make an invitation
      </button>
    </form>
  );
}

/** Shown this once: whoever has the link sets the password. */
function Invitation({ name, url, onDone }: { name: string; url: string; onDone(): void }) {
  const [copied, setCopied] = useState(false);
  return (
    <div role="status" className="alert alert-success alert-outline m-3 flex flex-wrap gap-2">
      <span className="min-w-60 flex-1">
        <b>Give this link to {name}, and to nobody else.</b> It works once, for seven days, and is shown this once.
        <input
          className="input mt-2 w-full font-mono"
          readOnly
          value={url}
          aria-label="Invitation link"
          onFocus={(e) => e.target.select()}
        />
      </span>
      <button
        type="button"
        className="btn"
        onClick={() => void navigator.clipboard?.writeText(url).then(() => setCopied(true))}
      >
        {copied ? <Check size={20} aria-hidden="true" /> : <Copy size={20} aria-hidden="true" />}
        {copied ? 'Copied' : 'Copy'}
      </button>
      <button type="button" className="btn" onClick={onDone}>
        I have it
      </button>
    </div>
  );
}

function WhatEachMay() {
  return (
    <>
      <h2 className="m-0 text-lg font-semibold">What each may do</h2>
      <dl className="my-2">
        {ROLES.map((r) => (
          <div key={r.id} className="border-rule border-t py-2">
            <dt className="font-semibold">{r.label}</dt>
            <dd className="m-0">{r.says}</dd>
          </div>
        ))}
      </dl>
      <details>
        <summary className="cursor-pointer font-semibold">Act by act</summary>
        <div className="overflow-x-auto">
          <table className="table-xs table">
            <thead>
              <tr>
                <th scope="col">To</th>
                {ROLES.map((r) => (
                  <th key={r.id} scope="col">
                    {r.label}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {(Object.keys(ACTS) as Act[]).map((act) => (
                <tr key={act}>
                  <th scope="row" className="text-ink text-sm font-normal">
                    {ACTS[act].says}
                  </th>
                  {ROLES.map((r) => (
                    <td key={r.id} className="text-center">
                      {may(r.id, act) ? <Check size={16} aria-label="yes" /> : <span aria-label="no">–</span>}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </>
  );
}
