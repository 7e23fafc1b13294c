'use client';
/** The guide of a practice job, in the place of the complaint. */
import { GraduationCap } from 'lucide-react';
import { useEffect, useState } from 'react';
import { madeBy } from '../../core/job/job';
import { guideSays, TERMS, termMet, type Answered } from './guide';
import { useJobFile, usePlace, useMeasuring } from './jobPage';

/** What the made-up rig answers to the next action, asked of the core aside. */
function useAnswered(): Answered {
  const { practice, job } = useJobFile();
  const { next } = usePlace();
  const asked =
    next.kind === 'measure'
      ? `${job.rigState.id} ${next.measurement.id} ${job.readings.length}`
      : next.kind === 'ask'
        ? `ask ${next.question}`
        : '';
  const [found, setFound] = useState<{ asked: string; answered: Answered }>();
  useEffect(() => {
    if (!practice || asked === '') return;
    let alive = true;
    const answer: Promise<Answered> =
      next.kind === 'measure'
        ? practice.meter(next.measurement).then((meter) => ({ meter }))
        : next.kind === 'ask'
          ? practice.answer(next.question).then((words) => ({ answer: words }))
          : Promise.resolve({});
    void answer.then((answered) => alive && setFound({ asked, answered }));
    return () => {
      alive = false;
    };
    // What is asked stands in `asked`: the rest is new at every render.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked]);
  return found?.asked === asked ? found.answered : {};
}

export function PracticeGuide() {
  const { words, job } = useJobFile();
  const { readings, measurements, band } = useMeasuring();
  const { next } = usePlace();
  const answered = useAnswered();
  const says = guideSays(next, answered);
  const bands = measurements.some((m) => band(job.rigState.id, m.id));
  const term = termMet({ next: next.kind, taken: readings.length, bands, made: madeBy(job) !== undefined });
  return (
    <div
      className="flex min-w-0 flex-1 items-center gap-2 rounded-sm border-2 border-info bg-info/10 px-2 leading-tight"
      role="status"
      aria-label="Practice guide"
    >
      <GraduationCap size={22} className="flex-none text-info" aria-hidden="true" />
      <p className="text-sm leading-tight">
        <b className="font-semibold">{says === undefined ? 'Practice. One moment …' : words(says)}</b>{' '}
        <span className="max-sm:hidden">{term && words(TERMS[term])}</span>
      </p>
    </div>
  );
}
