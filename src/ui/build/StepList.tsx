'use client';
/** The steps in order: dragged or moved by keys within what waits for what; each ticked off with the minutes it took. */
import { clsx } from 'clsx';
import { useState } from 'react';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { Check, GripVertical, TriangleAlert } from 'lucide-react';
import type { BuildPlan } from '../../core/plan/build/build';
import type { BuildStep } from '../../core/plan/build/graph';
import { lengthShown } from '../../core/units/preferences';
import { gaugeShown } from '../../core/units/wire';
import { useJobFile } from '../shell/jobPage';
import { StepPhotos } from './StepPhotos';
import { readFigure } from '../../core/units/typedFigure';

interface StepListProps {
  plan: BuildPlan;
  done: ReadonlyMap<string, { minutes?: number; by: string }>;
  next: string | undefined;
  locked: boolean;
  finish(step: string, minutes?: number): void;
  undo(step: string): void;
  move(order: string[]): void;
}

export function StepList({ plan, done, next, locked, finish, undo, move }: StepListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = plan.steps.map((s) => s.id);
  const drop = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id)
      move(arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id))));
  };
  return (
    <DndContext id="steps" sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol>
          {plan.steps.map((s, i) => (
            <Step
              key={s.id}
              step={s}
              number={i + 1}
              now={s.id === next}
              done={done.get(s.id)}
              locked={locked}
              finish={finish}
              undo={undo}
            />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

function Step({
  step,
  number,
  now,
  done,
  locked,
  finish,
  undo,
}: {
  step: BuildStep;
  number: number;
  now: boolean;
  done: { minutes?: number; by: string } | undefined;
  locked: boolean;
} & Pick<StepListProps, 'finish' | 'undo'>) {
  const { words, settings } = useJobFile();
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: step.id,
    disabled: locked,
  });
  const [minutes, setMinutes] = useState('');
  const read = readFigure(minutes, 'min');
  const took = read.is === 'figure' ? read.value : NaN;
  const wrong = read.is !== 'empty' && !(took >= 0 && took <= 10_000);
  return (
    <li
      ref={setNodeRef}
      className={clsx(
        'grid items-start gap-2',
        'pr-3.5 pl-1 py-2 border-b-1 border-rule bg-paper',
        'text-note leading-tight',
        'is-moving:relative is-moving:z-2 is-moving:border-2 is-moving:border-ink max-phone:pl-2.5',
        `bdstep${done ? ' done' : ''}${now ? ' now' : ''}${isDragging ? ' moving' : ''}`,
      )}
      style={{ transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined, transition }}
    >
      <button type="button" className="bdgrip" aria-label={`Move step ${number}`} {...attributes} {...listeners}>
        <GripVertical size={18} aria-hidden="true" />
      </button>
      <span
        className={clsx(
          'grid place-items-center',
          'w-8 h-8 border border-ink',
          'font-cond font-bold text-lead',
          'within-done:border-ok within-done:text-ok within-now:bg-ink within-now:text-paper',
        )}
        aria-hidden="true"
      >
        {done ? <Check size={18} /> : number}
      </span>
      <div>
        <b
          className={clsx(
            'block',
            'font-cond font-semibold text-large leading-close',
            'within-done:font-medium within-done:text-ink-2',
          )}
        >
          {words(step.title)}
        </b>
        <small className="text-note text-ink-2">
          {step.cut &&
            `${lengthShown(step.cut.length, settings.length).toFixed(1)} ` +
              `${settings.length} of ${gaugeShown(step.cut.gauge, settings.gauge)} · `}
          {words(step.place)}
          {step.under ? ', under the floor' : ''} ·{' '}
          {done
            ? done.minutes === undefined
              ? `done, ${done.by}`
              : `${done.minutes} min, ${done.by}`
            : `${Math.round(step.minutes[0])} to ${Math.round(step.minutes[1])} min`}
          {step.torque && !done ? ' · note the torque' : ''}
        </small>
        <StepPhotos step={step.id} title={step.title} locked={locked} shown={now || done !== undefined} />
        {now &&
          step.cautions.map((c) => (
            <span key={c} className="bdcaution grid grid-cols-icon gap-1.25 pt-0.75">
              <TriangleAlert size={16} aria-hidden="true" /> {words(c)}
            </span>
          ))}
      </div>
      {locked ? null : done ? (
        <button
          type="button"
          className="btn btn-sm max-small:col-start-2 max-small:justify-self-start"
          onClick={() => undo(step.id)}
          aria-label={`Not done: ${words(step.title)}`}
        >
          Not done
        </button>
      ) : (
        <form
          className={clsx(
            'bdform',
            'flex flex-wrap justify-end gap-1.5',
            'w-52',
            'max-phone:col-start-2 max-phone:justify-self-start max-phone:justify-start',
          )}
          onSubmit={(e) => {
            e.preventDefault();
            if (!wrong) finish(step.id, minutes.trim() === '' ? undefined : took);
          }}
        >
          <label className="with-unit flex items-center w-26.5 overflow-hidden border border-ink rounded bg-card">
            <input
              className={clsx(
                'input',
                'flex-1',
                'h-11 min-w-0 border-0 bg-transparent',
                'font-cond font-semibold text-right text-large text-ink tabular-nums',
                'focus:outline-none',
              )}
              inputMode="decimal"
              value={minutes}
              aria-label={`Minutes step ${number} took`}
              aria-invalid={wrong}
              placeholder="took"
              onChange={(e) => setMinutes(e.target.value)}
            />
            <b className="block pr-2.5 pl-0.5 font-cond font-semibold text-lead leading-close">min</b>
          </label>
          <button type="submit" className="btn btn-sm" aria-label={`Done: ${words(step.title)}`} disabled={wrong}>
            Done
          </button>
          {wrong && <em role="alert">0 to 10,000 min</em>}
        </form>
      )}
    </li>
  );
}
