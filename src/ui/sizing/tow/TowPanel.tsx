'use client';
/** The vehicle's socket beside the trailer's plug, position by position, and what their coupling does. */
import { clsx } from 'clsx';
import { useEffect, useRef, useState } from 'react';
import { TriangleAlert } from 'lucide-react';
import { connectorOf, CONNECTORS } from '../../../core/parts/connectors';
import { pinUse, type UseId } from '../../../core/parts/pinUses';
import { rewired } from '../../../core/rig/towRewire';
import type { TowInterface, TowPlug, TowWay } from '../../../core/rig/tow';
import type { TowReport } from '../../../core/rules/tow/report';
import { useJobFile } from '../../shell/jobPage';
import { Face } from './Face';
import { Findings } from './Findings';
import { PinEditor } from './PinEditor';
import { PinTable } from './PinTable';
import { TrailerEditor } from './TrailerEditor';

interface TowPanelProps {
  report: TowReport;
  /** Describes the interface anew. */
  describe(tow: TowInterface): void;
  apply(): void;
  applies: string;
}

/** A position nobody has wired yet. */
const unwired = (pin: string): TowWay => ({
  pin,
  feed: 'none',
  gauge: '14',
  length: 6,
  uses: [],
  usesGauge: '14',
  usesLength: 6,
});

export function TowPanel({ report, describe, apply, applies }: TowPanelProps) {
  const { words } = useJobFile();
  const { tow, audit } = report;
  const [plugId, setPlug] = useState<string>();
  const [pin, setPin] = useState<string>();
  /** Uses the last change of connector left without a pin. */
  const [left, setLeft] = useState<readonly UseId[]>([]);
  // The plug with the first trouble, until one is picked.
  const plug =
    tow.plugs.find((p) => p.id === plugId) ??
    tow.plugs.find((p) => audit.before.troubles.some((t) => t.at.startsWith(`${p.id}.`))) ??
    tow.plugs[0]!;
  const connector = connectorOf(plug.connector);
  const convention = connector.conventions.find((c) => c.id === plug.convention) ?? connector.conventions[0]!;
  const road = audit.before.solved.find((s) => s.situation.id === 'road')!;
  const wrongAt = new Set([...audit.before.troubles.map((t) => t.at), ...audit.contradictions.map((c) => c.at)]);
  const bad = new Set(connector.positions.map((p) => p.id).filter((id) => wrongAt.has(`${plug.id}.${id}`)));
  const change = (next: TowPlug) => describe({ ...tow, plugs: tow.plugs.map((p) => (p.id === plug.id ? next : p)) });
  const stillLeft = left.filter((u) => !tow.plugs.some((p) => p.ways.some((w) => w.uses.includes(u))));
  const changeWay = (way: TowWay) =>
    change({
      ...plug,
      ways: plug.ways.some((w) => w.pin === way.pin)
        ? plug.ways.map((w) => (w.pin === way.pin ? way : w))
        : [...plug.ways, way],
    });
  const rewire = (id: string) => {
    const { plug: next, left: without } = rewired(plug, id);
    change(next);
    setLeft(without);
    setPin(undefined);
  };
  const pick = (at: string) => {
    const [p, w] = at.split('.');
    if (tow.plugs.some((x) => x.id === p)) {
      setPlug(p);
      setPin(w);
    }
  };
  const way =
    pin !== undefined && connector.positions.some((p) => p.id === pin)
      ? (plug.ways.find((w) => w.pin === pin) ?? unwired(pin))
      : undefined;
  const editor = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (pin !== undefined) editor.current?.scrollIntoView({ block: 'nearest' });
  }, [pin]);
  return (
    <div className="oscroll tw flex-auto min-h-0 pb-4">
      <div className="twtop grid border-b-2 border-ink max-phone:grid-cols-1">
        <div
          className={clsx(
            'twplug',
            'grid content-start gap-2',
            'px-3.5 py-2 border-r-2 border-ink',
            'max-phone:border-r-0 max-phone:border-b-1 max-phone:border-rule',
          )}
        >
          {tow.plugs.length > 1 && (
            <div className="join" role="group" aria-label="Plug">
              {tow.plugs.map((p) => (
                <button
                  key={p.id}
                  type="button"
                  className={`btn btn-sm${p.id === plug.id ? ' btn-neutral' : ''}`}
                  aria-pressed={p.id === plug.id}
                  onClick={() => (setPlug(p.id), setPin(undefined))}
                >
                  {connectorOf(p.connector).label}
                  {p.ways
                    .flatMap((w) => w.uses)
                    .filter((u) => u === 'charger' || u === 'fridge' || u === 'bank')
                    .slice(0, 1)
                    .map((u) => (
                      <small key={u}>{words(pinUse(u).label)}</small>
                    ))}
                </button>
              ))}
            </div>
          )}
          {stillLeft.length > 0 && (
            <div role="alert" className="alert alert-warning items-start">
              <TriangleAlert size={20} aria-hidden="true" />
              <span>
                Left without a pin on the {connector.label}:{' '}
                <b>{stillLeft.map((u) => words(pinUse(u).label)).join(', ')}</b>. Put each on a pin or a plug of its
                own, or undo.
              </span>
            </div>
          )}
          <div className="grid grid-cols-2 items-end gap-3">
            <label className="grid gap-0.5 text-note">
              <span>Connector</span>
              <select
                className="select min-w-0 border-ink font-cond font-semibold"
                value={plug.connector}
                onChange={(e) => rewire(e.target.value)}
              >
                {CONNECTORS.map((c) => (
                  <option key={c.id} value={c.id}>
                    {c.label}
                  </option>
                ))}
              </select>
            </label>
            <label className="grid gap-0.5 text-note">
              <span>Wired as</span>
              <select
                className="select min-w-0 border-ink font-cond font-semibold"
                value={plug.convention}
                onChange={(e) => change({ ...plug, convention: e.target.value })}
              >
                {connector.conventions.map((c) => (
                  <option key={c.id} value={c.id}>
                    {words(c.label)}
                  </option>
                ))}
              </select>
            </label>
          </div>
          <div className="grid grid-cols-2 gap-3">
            <Face plug={plug} side="socket" picked={pin} bad={bad} pick={setPin} words={words} />
            <Face plug={plug} side="plug" picked={pin} bad={bad} pick={setPin} words={words} />
          </div>
          <p className="quiet">
            {connector.key.charAt(0).toUpperCase() + connector.key.slice(1)}; {connector.source}.{' '}
            {report.described ? '' : words('Not described yet: the charge line as drawn, the rest as usual.')}
          </p>
          <PinTable plug={plug} road={road} bad={bad} picked={pin} pick={setPin} />
        </div>
        <Findings report={report} pick={pick} apply={apply} applies={applies} />
      </div>
      <div ref={editor}>
        {way ? (
          <PinEditor
            key={`${plug.id} ${way.pin}`}
            connector={connector}
            convention={convention}
            way={way}
            metresToStart={report.metresToStart}
            change={changeWay}
          />
        ) : (
          <p className="quiet px-3 py-2.5">
            Pick a pin to say what it supplies, what you measured there and what is connected to it.
          </p>
        )}
      </div>
      <TrailerEditor tow={tow} describe={describe} />
      <p className="quiet px-3 py-2.5">Breakaway: {words(report.breakaway)}</p>
    </div>
  );
}
