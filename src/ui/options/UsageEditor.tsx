'use client';
/** How this customer uses the rig: legs on a time line, dragged into order, stretched, or worked by keys. */
import { clsx } from 'clsx';
import type { TraitName } from '../../core/parts/traits';
import { has as rigHas } from '../../core/rig/value';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { arrayMove, horizontalListSortingStrategy, SortableContext, useSortable } from '@dnd-kit/sortable';
import { Plus, Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { LOADS } from '../../core/simulate/loadTable';
import { storage } from '../../core/plan/usualScenarios';
import type { Leg, Scenario } from '../../core/simulate/scenarioSchema';
import { celsiusShown, celsiusStored } from '../../core/units/preferences';
import { Choose, NumberField } from '../fields';
import { useJobFile } from '../shell/jobPage';
import { inHours } from './time';

const KINDS: readonly { id: Leg['kind']; label: string }[] = [
  { id: 'drive', label: 'Drive' },
  { id: 'idle', label: 'Idle, parked' },
  { id: 'stand', label: 'Stand' },
  { id: 'shore', label: 'On shore' },
  { id: 'generator', label: 'Generator' },
];

/** A long leg must not push the short ones off the line: its length on screen grows with the root of its hours. */
const share = (hours: number) => Math.sqrt(hours) + 1.2;

const nextHours = (hours: number, by: 1 | -1): number => {
  const step = hours >= 100 ? 24 : hours >= 24 ? 4 : hours >= 6 ? 1 : 0.5;
  return Math.max(0.25, Math.min(4400, Math.round((hours + by * step) * 4) / 4));
};

interface BlockProps {
  leg: Leg;
  on: boolean;
  pick(): void;
  change(leg: Leg): void;
  remove(): void;
  move(by: 1 | -1): void;
}

function LegBlock({ leg, on, pick, change, remove, move }: BlockProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: leg.id });
  const stretch = useRef<{ x: number; hours: number; width: number }>(undefined);
  const [live, setLive] = useState<number>();
  const hours = live ?? leg.hours;
  return (
    <div
      ref={setNodeRef}
      className={clsx(
        'relative',
        'min-w-14 border-r border-ink bg-card',
        'touch-none',
        'is-drive:bg-engine-tint is-on:bg-ink is-on:text-paper last:border-r-0',
        'max-phone:min-h-12 max-phone:border-r-0 max-phone:border-b max-phone:border-ink',
        `leg ${leg.kind}${on ? ' on' : ''}${isDragging ? ' dragging' : ''}`,
      )}
      style={{ flexGrow: share(hours), transform: transform ? `translateX(${transform.x}px)` : undefined, transition }}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-pressed={on}
        aria-label={`${leg.name}, ${inHours(hours)}. Alt and arrows move it, plus and minus stretch it, Delete takes it out.`}
        onClick={pick}
        onKeyDown={(e) => {
          if (e.altKey && (e.key === 'ArrowLeft' || e.key === 'ArrowRight')) move(e.key === 'ArrowRight' ? 1 : -1);
          else if (e.key === '+' || e.key === '=') change({ ...leg, hours: nextHours(leg.hours, 1) });
          else if (e.key === '-') change({ ...leg, hours: nextHours(leg.hours, -1) });
          else if (e.key === 'Delete') remove();
          else {
            listeners?.['onKeyDown']?.(e);
            return;
          }
          e.preventDefault();
          e.stopPropagation();
        }}
      >
        <b className="max-h-9 overflow-hidden font-cond text-lead leading-none">{leg.name}</b>
        <span className="font-cond text-plain whitespace-nowrap">{inHours(hours)}</span>
      </button>
      <span
        className="grip absolute right-0 top-0 bottom-0 w-4 cursor-ew-resize touch-none"
        aria-hidden="true"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          stretch.current = {
            x: e.clientX,
            hours: leg.hours,
            width: e.currentTarget.parentElement!.getBoundingClientRect().width,
          };
          e.stopPropagation();
        }}
        onPointerMove={(e) => {
          const s = stretch.current;
          if (!s) return;
          const factor = Math.max(0.1, (s.width + (e.clientX - s.x) * 2) / s.width);
          const to = s.hours * factor * factor;
          const step = to >= 48 ? 12 : to >= 6 ? 1 : 0.5;
          setLive(Math.max(step, Math.min(4400, Math.round(to / step) * step)));
        }}
        onPointerUp={() => {
          stretch.current = undefined;
          if (live !== undefined && live !== leg.hours) change({ ...leg, hours: live });
          setLive(undefined);
        }}
      />
    </div>
  );
}

/** "55 W, on 35 % of the time". */
const loadWords = (watts: number, duty: number): string =>
  duty >= 1
    ? `${watts} W`
    : duty <= 0
      ? 'off in this weather'
      : `${watts} W, on ${duty < 0.01 ? 'minutes a day' : `${Math.round(duty * 100)} % of the time`}`;

function LegForm({ leg, change }: { leg: Leg; change(leg: Leg): void }) {
  const { settings, rig } = useJobFile();
  const unit = settings.temperature;
  const has = (trait: TraitName) => rigHas(rig, trait);
  const flag = (
    key: 'disconnectOpen' | 'held' | 'uncoupled' | 'boostWedged' | 'lampsOn' | 'fridgeOnBattery',
    label: string,
  ) => (
    <label className="tick">
      <input
        type="checkbox"
        className="checkbox flex-none border-ink"
        checked={leg[key] ?? false}
        onChange={(e) => change({ ...leg, [key]: e.target.checked })}
      />
      {label}
    </label>
  );
  return (
    <div className="grid gap-2.5 pt-2.5 border-t-2 border-ink">
      <label className="field max-w-80">
        <span>Name</span>
        <input
          className="input border-ink"
          key={leg.id}
          defaultValue={leg.name}
          maxLength={60}
          onBlur={(e) =>
            e.target.value.trim() !== '' &&
            e.target.value !== leg.name &&
            change({ ...leg, name: e.target.value.trim() })
          }
        />
      </label>
      <Choose
        label="What the rig does"
        choices={KINDS.filter(
          (k) => (k.id !== 'shore' || has('mainsCharger')) && (k.id !== 'generator' || has('generator')),
        )}
        value={leg.kind}
        onChange={(kind) => change({ ...leg, kind })}
      />
      <div className="flex flex-wrap gap-2.5">
        <NumberField
          key={`h${leg.id}`}
          late
          label="Lasts"
          unit="h"
          value={leg.hours}
          min={0.05}
          max={4400}
          onChange={(hours) => change({ ...leg, hours })}
        />
        {leg.kind === 'drive' && (
          <NumberField
            key={`i${leg.id}`}
            late
            label="Standing in traffic"
            unit="%"
            value={(leg.idleShare ?? 0) * 100}
            min={0}
            max={100}
            onChange={(x) => change({ ...leg, idleShare: x / 100 })}
          />
        )}
        <NumberField
          key={`c${leg.id}${unit}`}
          late
          label="Outside"
          unit={`°${unit}`}
          value={celsiusShown(leg.celsius, unit)}
          min={celsiusShown(-40, unit)}
          max={celsiusShown(55, unit)}
          onChange={(x) => change({ ...leg, celsius: celsiusStored(x, unit) })}
        />
        {has('panels') && (
          <NumberField
            key={`s${leg.id}`}
            late
            label="Full sun"
            unit="h a day"
            value={leg.sunHours}
            min={0}
            max={9}
            onChange={(sunHours) => change({ ...leg, sunHours })}
          />
        )}
        <NumberField
          key={`a${leg.id}`}
          late
          label="More house load"
          unit="A"
          value={leg.moreAmps ?? 0}
          min={0}
          max={500}
          onChange={(moreAmps) => change({ ...leg, moreAmps })}
        />
      </div>
      <fieldset className="oticks grid gap-x-3.5 m-0 p-0">
        <legend className="font-semibold text-note">Runs in the living space</legend>
        {LOADS.map((l) => (
          <label key={l.id} className="tick">
            <input
              type="checkbox"
              className="checkbox flex-none border-ink"
              checked={leg.loads.includes(l.id)}
              onChange={(e) =>
                change({ ...leg, loads: e.target.checked ? [...leg.loads, l.id] : leg.loads.filter((x) => x !== l.id) })
              }
            />
            {l.label} <small className="text-ink-2 text-fine">{loadWords(l.watts, l.duty(leg.celsius))}</small>
          </label>
        ))}
      </fieldset>
      <fieldset className="oticks grid gap-x-3.5 m-0 p-0">
        <legend className="font-semibold text-note">And</legend>
        {has('disconnect') && flag('disconnectOpen', 'Coach disconnect off')}
        {has('boost') && flag('boostWedged', 'Boost switch wedged down')}
        {has('towConnector') && flag('uncoupled', 'Uncoupled')}
        {has('fridge') && flag('fridgeOnBattery', 'Three-way fridge left on 12 V')}
        {has('charger') && flag('held', 'Charger switched off by hand')}
        {flag('lampsOn', 'Marker lights on')}
      </fieldset>
    </div>
  );
}

/** A leg longer than this is standing in storage. */
const STORED_FROM_HOURS = 24 * 14;

interface Props {
  scenarios: readonly Scenario[];
  house: { id: string; name: string } | undefined;
  onChange(scenarios: Scenario[]): void;
}

export function UsageEditor({ scenarios, house, onChange }: Props) {
  const [at, setAt] = useState(0);
  const [picked, setPicked] = useState<string>();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor),
  );
  const scenario = scenarios[Math.min(at, scenarios.length - 1)];
  const put = (next: Scenario) => onChange(scenarios.map((s) => (s === scenario ? next : s)));
  const freshId = (base: string, taken: readonly { id: string }[]) => {
    for (let n = 1; ; n++) if (!taken.some((x) => x.id === `${base}-${n}`)) return `${base}-${n}`;
  };
  const addScenario = () => {
    const id = freshId('use', scenarios);
    onChange([
      ...scenarios,
      {
        id,
        name: `Use ${scenarios.length + 1}`,
        startHour: 8,
        ...(house ? { startSoc: { [house.id]: 0.9 } } : {}),
        legs: [
          {
            id: 'leg-1',
            name: 'Drive',
            kind: 'drive',
            hours: 4,
            idleShare: 0.2,
            celsius: 15,
            sunHours: 0,
            loads: ['standby'],
          },
        ],
      },
    ]);
    setAt(scenarios.length);
  };
  const addStorage = () => {
    onChange([...scenarios, storage(3, false, house ? { startSoc: { [house.id]: 0.9 } } : {})]);
    setAt(scenarios.length);
  };
  if (!scenario)
    return (
      <div>
        <h2>No use yet</h2>
        <p>Links are compared on how this customer uses the rig: hours driven, nights off grid, months stored.</p>
        <button type="button" className="btn" onClick={addScenario}>
          <Plus size={18} aria-hidden="true" /> Add a use
        </button>
      </div>
    );
  const { legs } = scenario;
  const leg = legs.find((l) => l.id === picked) ?? legs[0]!;
  const setLegs = (next: Leg[]) => put({ ...scenario, legs: next });
  const change = (next: Leg) => setLegs(legs.map((l) => (l.id === next.id ? next : l)));
  const remove = (id: string) => legs.length > 1 && setLegs(legs.filter((l) => l.id !== id));
  const move = (id: string, by: 1 | -1) => {
    const i = legs.findIndex((l) => l.id === id);
    const to = i + by;
    if (to >= 0 && to < legs.length) setLegs(arrayMove(legs, i, to));
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    setLegs(
      arrayMove(
        legs,
        legs.findIndex((l) => l.id === active.id),
        legs.findIndex((l) => l.id === over.id),
      ),
    );
  };
  const add = () => {
    const id = freshId('leg', legs);
    setLegs([...legs, { ...leg, id, name: 'New leg' }]);
    setPicked(id);
  };
  return (
    <div className="grid gap-1.5 mt-1.5 px-3 pt-2.5 pb-4">
      <div className="flex items-end flex-wrap gap-2">
        {scenarios.map((s, i) => (
          <button
            key={s.id}
            type="button"
            className="btn btn-sm"
            aria-pressed={s === scenario}
            onClick={() => (setAt(i), setPicked(undefined))}
          >
            {s.name}
          </button>
        ))}
        {scenarios.length < 6 && (
          <button type="button" className="btn btn-sm" onClick={addScenario}>
            <Plus size={16} aria-hidden="true" /> Another use
          </button>
        )}
        {scenarios.length < 6 && !scenarios.some((s) => s.id === 'storage') && (
          <button type="button" className="btn" onClick={addStorage}>
            <Plus size={16} aria-hidden="true" /> Stored for months
          </button>
        )}
        <span className="flex-1" />
        {scenarios.length > 1 && (
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => (onChange(scenarios.filter((s) => s !== scenario)), setAt(0))}
          >
            <Trash2 size={16} aria-hidden="true" /> Take this use out
          </button>
        )}
      </div>
      {!scenarios.some((s) => s.legs.some((l) => l.hours > STORED_FROM_HOURS)) && (
        <p className="text-sm opacity-80">
          Nobody spoke of storage: it is not counted. Ask how long the rig stands, and whether it is plugged in.
        </p>
      )}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={legs.map((l) => l.id)} strategy={horizontalListSortingStrategy}>
          <div
            className={clsx(
              'timeline',
              'h-18.5 overflow-hidden border-2 border-ink rounded bg-card',
              'max-phone:flex-col max-phone:h-auto',
            )}
            role="group"
            aria-label={`Legs of ${scenario.name}`}
          >
            {legs.map((l) => (
              <LegBlock
                key={l.id}
                leg={l}
                on={l.id === leg.id}
                pick={() => setPicked(l.id)}
                change={change}
                remove={() => remove(l.id)}
                move={(by) => move(l.id, by)}
              />
            ))}
          </div>
        </SortableContext>
      </DndContext>
      <div className="flex items-end flex-wrap gap-2">
        <button type="button" className="btn btn-sm" onClick={add}>
          <Plus size={16} aria-hidden="true" /> Add a leg
        </button>
        <button type="button" className="btn btn-sm" onClick={() => remove(leg.id)} disabled={legs.length < 2}>
          <Trash2 size={16} aria-hidden="true" /> Take “{leg.name}” out
        </button>
        <span className="flex-1" />
        <NumberField
          key={`start${scenario.id}`}
          late
          label="Begins at"
          unit="o’clock"
          value={scenario.startHour}
          min={0}
          max={24}
          onChange={(startHour) => put({ ...scenario, startHour })}
        />
        {house && (
          <NumberField
            key={`soc${scenario.id}`}
            late
            label={`${house.name} at`}
            unit="%"
            value={(scenario.startSoc?.[house.id] ?? 0.9) * 100}
            min={0}
            max={100}
            onChange={(x) => put({ ...scenario, startSoc: { ...scenario.startSoc, [house.id]: x / 100 } })}
          />
        )}
      </div>
      <LegForm leg={leg} change={change} />
    </div>
  );
}
