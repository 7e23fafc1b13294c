'use client';
/** One position: what the vehicle gives, what was measured there, what the trailer hangs on it. */
import { clsx } from 'clsx';
import { POSITION_WORDS, positionShown, type Connector, type Convention } from '../../../core/parts/connectors';
import {
  PIN_CONDITIONS,
  PIN_FEEDS,
  PIN_USES,
  type FeedId,
  type PinCondition,
  type UseId,
} from '../../../core/parts/pinUses';
import type { PinSeen, TowWay } from '../../../core/rig/tow';
import { gaugesOf, gaugeShown, type Gauge } from '../../../core/units/wire';
import { lengthShown, lengthStored } from '../../../core/units/preferences';
import { useJobFile } from '../../shell/jobPage';
import { NumberField } from '../../fields';
import { SeenField } from './SeenField';

const CONDITION_LABELS: Readonly<Record<PinCondition, string>> = {
  'key-off': 'Key off',
  'key-on': 'Key on',
  'engine-on': 'Engine on',
  'lamps-on': 'Lamps on',
  'brake-on': 'Brakes on',
};

interface PinEditorProps {
  connector: Connector;
  convention: Convention;
  way: TowWay;
  /** m of cable more from the start battery than from an accessory battery; undefined where there is none. */
  metresToStart: number | undefined;
  change(way: TowWay): void;
}

export function PinEditor({ connector, convention, way, metresToStart, change }: PinEditorProps) {
  const { settings, words } = useJobFile();
  const position = connector.positions.find((p) => p.id === way.pin)!;
  const fed = way.feed === 'constant' || way.feed === 'ignition';
  const gauges = (value: Gauge, label: string, set: (g: Gauge) => void) => (
    <label className="numfield grid items-center gap-x-2.5 gap-y-1">
      <span className="first:m-0 first:p-0 first:font-semibold first:text-note">{label}</span>
      <select
        className="select min-w-0 border-ink font-cond font-semibold"
        value={value}
        onChange={(e) => set(e.target.value as Gauge)}
      >
        {gaugesOf(settings.gauge, value).map((g) => (
          <option key={g} value={g}>
            {gaugeShown(g, settings.gauge)}
          </option>
        ))}
      </select>
    </label>
  );
  const length = (metres: number, label: string, set: (m: number) => void) => (
    <NumberField
      late
      label={label}
      unit={settings.length}
      value={lengthShown(metres, settings.length)}
      min={0.1}
      max={lengthShown(100, settings.length)}
      onChange={(v) => set(lengthStored(v, settings.length))}
    />
  );
  const see = (when: PinCondition, seen: PinSeen | undefined) => {
    const others = (way.seen ?? []).filter((s) => s.when !== when);
    const { seen: _, ...rest } = way;
    const all = seen ? [...others, seen] : others;
    change(all.length > 0 ? { ...rest, seen: all } : rest);
  };
  const hang = (use: UseId, on: boolean) =>
    change({ ...way, uses: on ? [...way.uses, use] : way.uses.filter((u) => u !== use) });
  return (
    <section
      className="grid gap-2 px-3.5 py-2.5 border-t-2 border-b-1 border-t-ink border-b-rule bg-card"
      aria-label={`Pin ${positionShown(way.pin)}`}
    >
      <h3 className="font-cond font-bold text-head leading-close">
        Position {positionShown(way.pin)}{' '}
        <small className="ml-1.5 font-sans font-normal text-note text-ink-2">
          {words(POSITION_WORDS[convention.uses[way.pin]!])}, usually {convention.colours[way.pin]}: measure, never
          trust color. Rated {position.amps} A.
        </small>
      </h3>
      <div className="twcols grid grid-cols-3 items-start gap-x-5 gap-y-2.5">
        <fieldset className="grid gap-2 min-w-0">
          <legend className="pb-1 font-cond font-semibold text-lead">{words('The vehicle gives')}</legend>
          <label className="numfield grid items-center gap-x-2.5 gap-y-1">
            <span className="first:m-0 first:p-0 first:font-semibold first:text-note">Here</span>
            <select
              className="select min-w-0 border-ink font-cond font-semibold"
              value={way.feed}
              onChange={(e) => change({ ...way, feed: e.target.value as FeedId })}
            >
              {PIN_FEEDS.map((f) => (
                <option key={f.id} value={f.id}>
                  {words(f.label)}
                </option>
              ))}
            </select>
          </label>
          {fed && metresToStart !== undefined && (
            <label className="numfield grid items-center gap-x-2.5 gap-y-1">
              <span className="first:m-0 first:p-0 first:font-semibold first:text-note">From</span>
              <select
                className="select min-w-0 border-ink font-cond font-semibold"
                value={way.from ?? 'start'}
                onChange={(e) => {
                  const from = e.target.value as 'start' | 'accessory';
                  // The start battery lies farther from the socket: its cable is as much longer.
                  const more = from === 'start' ? metresToStart : -metresToStart;
                  change({ ...way, from, length: Math.max(0.5, Number((way.length + more).toFixed(2))) });
                }}
              >
                <option value="start">{words('start battery')}</option>
                <option value="accessory">{words('accessory battery')}</option>
              </select>
            </label>
          )}
          {fed && (
            <NumberField
              late
              label="Fuse"
              unit="A"
              value={way.fuse ?? 0}
              min={0}
              max={500}
              onChange={(fuse) => change({ ...way, fuse })}
            />
          )}
          {gauges(way.gauge, 'Wire', (gauge) => change({ ...way, gauge }))}
          {length(way.length, 'Length', (v) => change({ ...way, length: v }))}
        </fieldset>
        <fieldset className="grid gap-2 min-w-0">
          <legend className="pb-1 font-cond font-semibold text-lead">Measured here</legend>
          <div className="twseen grid gap-1" role="table" aria-label="Volts at the pin">
            <div role="row" className="grid items-center gap-1 font-cond text-note text-ink-2">
              <span role="columnheader">State</span>
              <span role="columnheader">Unloaded</span>
              <span role="columnheader">Loaded</span>
              <span role="columnheader">with</span>
            </div>
            {PIN_CONDITIONS.map((when) => (
              <SeenField
                key={`${way.pin} ${when}`}
                label={CONDITION_LABELS[when]}
                when={when}
                seen={way.seen?.find((s) => s.when === when)}
                see={(s) => see(when, s)}
              />
            ))}
          </div>
        </fieldset>
        <fieldset className="grid gap-2 min-w-0">
          <legend className="pb-1 font-cond font-semibold text-lead">{words('Connected on the trailer')}</legend>
          <div className="twuses grid grid-cols-2 gap-x-2 gap-y-0">
            {PIN_USES.map((u) => (
              <label
                key={u.id}
                className={clsx(
                  'flex items-center gap-1.75',
                  'min-h-10',
                  'text-note leading-close',
                  'is-on:font-semibold',
                  way.uses.includes(u.id) ? 'on' : '',
                )}
              >
                <input
                  className="flex-none w-5 h-5"
                  type="checkbox"
                  checked={way.uses.includes(u.id)}
                  onChange={(e) => hang(u.id, e.target.checked)}
                />{' '}
                {words(u.label)}
              </label>
            ))}
          </div>
          {gauges(way.usesGauge, 'Wire', (usesGauge) => change({ ...way, usesGauge }))}
          {length(way.usesLength, 'Length', (v) => change({ ...way, usesLength: v }))}
        </fieldset>
      </div>
    </section>
  );
}
