'use client';
/** The program without a server: the board and the jobs this device holds, under the addresses they always have. */
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { fetchBoard } from '@/client/api';
import { fromServerOrCopy } from '@/client/deviceCopy';
import { wantedOf, type Wanted } from '@/offline/shell';
import type { BoardPage } from '@/server/job/board';
import { Board } from '../Board';
import { JobBench } from '../jobs/[number]/(bench)/JobBench';

export function OfflineShell() {
  const [wanted, setWanted] = useState<Wanted>();
  useEffect(() => {
    // After the router's own effects: only then does it follow what is written into the address.
    queueMicrotask(() => {
      const found = wantedOf(location.search);
      // Its own address again: what hangs on it goes by it, and a reload asks the server first.
      history.replaceState(null, '', found.page === 'board' ? '/' : found.path);
      setWanted(found);
    });
  }, []);
  if (!wanted) return <p role="status">Opening …</p>;
  if (wanted.page === 'job') return <JobBench number={wanted.number} />;
  if (wanted.page === 'board') return <BoardFromDevice />;
  return (
    <main className="plain">
      <h1>This page needs the server</h1>
      <p>The server does not answer. Jobs that were opened on this device, and the open ones of the board, are here.</p>
      {/* eslint-disable-next-line @next/next/no-html-link-for-pages -- asks the server first, and comes back here if it is silent */}
      <a className="btn" href="/">
        All jobs
      </a>
      <button type="button" className="btn" onClick={() => location.reload()}>
        Try again
      </button>
    </main>
  );
}

function BoardFromDevice() {
  const { data, error } = useQuery({
    queryKey: ['board'],
    queryFn: ({ client }) => fromServerOrCopy('board', () => fetchBoard(client.getQueryData<BoardPage>(['board']))),
    retry: false,
  });
  if (data) return <Board initial={data} />;
  return error ? (
    <main className="plain">
      <h1>No board on this device</h1>
      <p>The server does not answer, and nobody has opened the board here since signing in. {error.message}</p>
      <button type="button" className="btn" onClick={() => location.reload()}>
        Try again
      </button>
    </main>
  ) : (
    <p className="boot" role="status">
      Opening the board …
    </p>
  );
}
