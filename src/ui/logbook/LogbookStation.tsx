'use client';
/** Years of a rig: what was done, what it read, what falls due, what its recorders wrote. */
import { clsx } from 'clsx';
import { useQuery } from '@tanstack/react-query';
import { Suspense, useState } from 'react';
import { Choose } from '../fields';
import { useJobFile, useAnswers } from '../shell/jobPage';
import { lazyPart } from '../lazyPart';
import { StationBar } from '../StationBar';
import { FollowUps } from './FollowUps';
import { Trouble } from '../Trouble';
import { History } from './History';

const Trends = lazyPart(() => import('./Trends'), 'Trends');
const Drain = lazyPart(() => import('./Drain'), 'Drain');
const Files = lazyPart(() => import('./Files'), 'Files');
const LogReader = lazyPart(() => import('./LogReader'), 'LogReader');

const VIEWS = [
  { id: 'history', label: 'History' },
  { id: 'trends', label: 'Trends' },
  { id: 'follow', label: 'Follow-ups' },
  { id: 'log', label: 'Read a log' },
  { id: 'drain', label: 'Drain' },
  { id: 'files', label: 'Files' },
] as const;
type View = (typeof VIEWS)[number]['id'];

export function LogbookStation() {
  const { job, rig } = useJobFile();
  const { logbook } = useAnswers();
  const [view, setView] = useState<View>('history');
  const history = useQuery({ queryKey: ['history', job.number], queryFn: () => logbook.history(), staleTime: 30_000 });
  // What is on its way of this very job is shown as it will be.
  const jobs = history.data?.map((j) => (j.number === job.number ? job : j));
  return (
    <div className="logbook flex flex-col h-full min-h-0">
      <StationBar>
        <Choose<View> label="" choices={VIEWS} value={view} onChange={setView} />
        <b
          className={clsx(
            'ofor',
            'ml-auto overflow-hidden',
            'font-cond text-large text-ellipsis whitespace-nowrap',
            'max-small:hidden',
          )}
        >
          {rig.name}
        </b>
      </StationBar>
      <div className="oscroll flex-auto min-h-0">
        {history.error && <Trouble>Earlier jobs are not at hand: {(history.error as Error).message}</Trouble>}
        <Suspense fallback={<p className="waiting py-2 text-note text-ink-2">Opening …</p>}>
          {view === 'log' ? (
            <LogReader />
          ) : view === 'files' ? (
            <Files />
          ) : view === 'drain' ? (
            <Drain />
          ) : view === 'follow' ? (
            <FollowUps />
          ) : !jobs ? (
            <p className="waiting py-2 text-note text-ink-2">Turning the pages …</p>
          ) : view === 'history' ? (
            <History jobs={jobs} />
          ) : (
            <Trends jobs={jobs} />
          )}
        </Suspense>
      </div>
    </div>
  );
}
