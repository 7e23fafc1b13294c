'use client';
/** The vehicle's socket beside the trailer's plug, position by position, and what their coupling does. */
import { useState } from 'react';
import { CircleCheck, TriangleAlert } from 'lucide-react';
import { connectorOf, CONNECTORS, POSITION_WORDS } from '../../../core/parts/connectors';
import { pinFeed, pinUse } from '../../../core/parts/pinUses';
import type { TowInterface, TowPlug, TowWay } from '../../../core/rig/tow';
import type { TowReport } from '../../../core/rules/tow/report';
import { useBench } from '../../job/bench';
import { Face } from './Face';
import { Findings } from './Findings';
import { PinEditor } from './PinEditor';
import { TrailerEditor } from './TrailerEditor';

interface TowPanelProps {
  report: TowReport;
  /** Describes the interface anew. */
  describe(tow: TowInterface): void;
  apply(): void;
  applies: string;
}

/** A position nobody has wired yet. */
const unwired = (pin: string): TowWay => ({ pin, feed: 'none', gauge: '14', length: 6, uses: [], usesGauge: '14', usesLength: 6 });

export function TowPanel({ report, describe, apply, applies }: TowPanelProps) {
  const { words } = useBench();
  const { tow, audit } = report;
  const [plugId, setPlug] = useState<string>();
  const [pin, setPin] = useState<string>();
  const plug = tow.plugs.find((p) => p.id === plugId) ?? tow.plugs[0]!;
  const connector = connectorOf(plug.connector);
  const convention = connector.conventions.find((c) => c.id === plug.convention) ?? connector.conventions[0]!;
  const road = audit.before.solved.find((s) => s.situation.id === 'road')!;
  const wrongAt = new Set([...audit.before.troubles.map((t) => t.at), ...audit.contradictions.map((c) => c.at)]);
  const bad = new Set(connector.positions.map((p) => p.id).filter((id) => wrongAt.has(`${plug.id}.${id}`)));
  const change = (next: TowPlug) => describe({ ...tow, plugs: tow.plugs.map((p) => (p.id === plug.id ? next : p)) });
  const changeWay = (way: TowWay) => change({ ...plug, ways: plug.ways.some((w) => w.pin === way.pin) ? plug.ways.map((w) => (w.pin === way.pin ? way : w)) : [...plug.ways, way] });
  const rewire = (id: string) => {
    // Another body has other positions: what does not exist on it falls away, by its use where it has one.
    const next = connectorOf(id);
    const [to] = next.conventions;
    const ways = plug.ways.flatMap((w): TowWay[] => {
      const use = convention.uses[w.pin];
      const at = Object.keys(to!.uses).find((p) => to!.uses[p] === use);
      return at ? [{ ...w, pin: at }] : [];
    });
    change({ ...plug, connector: id, convention: to!.id, ways: ways.filter((w, i) => ways.findIndex((x) => x.pin === w.pin) === i) });
    setPin(undefined);
  };
  const pick = (at: string) => {
    const [p, w] = at.split('.');
    if (tow.plugs.some((x) => x.id === p)) {
      setPlug(p);
      setPin(w);
    }
  };
  const way = pin !== undefined && connector.positions.some((p) => p.id === pin) ? (plug.ways.find((w) => w.pin === pin) ?? unwired(pin)) : undefined;
  return (
    <div className="oscroll tw">
      <div className="twtop">
        <div className="twplug">
          {tow.plugs.length > 1 && (
            <div className="join" role="group" aria-label="Plug">
              {tow.plugs.map((p) => (
                <button key={p.id} type="button" className={`bx small${p.id === plug.id ? ' on' : ''}`} aria-pressed={p.id === plug.id} onClick={() => (setPlug(p.id), setPin(undefined))}>
                  {connectorOf(p.connector).label}
                </button>
              ))}
            </div>
          )}
          <div className="twfaces">
            <Face plug={plug} side="socket" picked={pin} bad={bad} pick={setPin} words={words} />
            <Face plug={plug} side="plug" picked={pin} bad={bad} pick={setPin} words={words} />
          </div>
          <div className="twkind">
            <label>
              <span>Connector</span>
              <select className="select" value={plug.connector} onChange={(e) => rewire(e.target.value)}>
                {CONNECTORS.map((c) => (
                  <option key={c.id} value={c.id}>
                    {c.label}
                  </option>
                ))}
              </select>
            </label>
            <label>
              <span>Wired as</span>
              <select className="select" value={plug.convention} onChange={(e) => change({ ...plug, convention: e.target.value })}>
                {connector.conventions.map((c) => (
                  <option key={c.id} value={c.id}>
                    {words(c.label)}
                  </option>
                ))}
              </select>
            </label>
          </div>
          <p className="quiet">
            {connector.key}; {connector.source}. {report.described ? '' : words('Not described yet: the charge line as drawn, the rest as usual.')}
          </p>
        </div>
        <Findings report={report} pick={pick} apply={apply} applies={applies} />
      </div>
      <div className="sztable twtable">
        <table>
          <thead>
            <tr>
              <th scope="col">Position</th>
              <th scope="col">{words('Vehicle gives')}</th>
              <th scope="col">Measured</th>
              <th scope="col">{words('Trailer hangs on it')}</th>
              <th scope="col">On the road</th>
              <th scope="col" aria-label="State" />
            </tr>
          </thead>
          <tbody>
            {connector.positions.map((p) => {
              const w = plug.ways.find((x) => x.pin === p.id);
              const flow = road.ways.get(`${plug.id}.${p.id}`);
              const shown = p.id.length > 2 ? (p.id === 'plus' ? '+' : '–') : p.id.toUpperCase();
              return (
                <tr key={p.id} className={pin === p.id ? 'on' : ''}>
                  <th scope="row">
                    <button type="button" className="twrow" aria-expanded={pin === p.id} onClick={() => setPin(pin === p.id ? undefined : p.id)}>
                      <b>{shown}</b> {words(POSITION_WORDS[convention.uses[p.id]!])}
                    </button>
                  </th>
                  <td>
                    {w ? words(pinFeed(w.feed).label) : 'nothing'}
                    {w?.fuse ? `, ${w.fuse} A` : ''}
                    {w?.from === 'accessory' ? words(', accessory battery') : ''}
                  </td>
                  <td>{w?.seen?.length ? w.seen.map((s) => `${s.open.toFixed(1)}${s.loaded !== undefined ? ` → ${s.loaded.toFixed(1)}` : ''} V`).join(', ') : '–'}</td>
                  <td>{w?.uses.length ? w.uses.map((u) => words(pinUse(u).label)).join(', ') : '–'}</td>
                  <td>{flow && Math.abs(flow.amps) >= 0.05 ? `${Math.abs(flow.amps).toFixed(1)} A of ${p.amps}` : '–'}</td>
                  <td>{bad.has(p.id) ? <TriangleAlert size={18} aria-label="something is wrong" /> : w && (w.feed !== 'none' || w.uses.length > 0) ? <CircleCheck size={18} aria-label="in order" /> : null}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {way ? <PinEditor key={`${plug.id} ${way.pin}`} connector={connector} convention={convention} way={way} accessory={report.accessory} change={changeWay} /> : <p className="quiet pad">Pick a position to say what it gives, what you measured there and what hangs on it.</p>}
      <TrailerEditor tow={tow} describe={describe} />
    </div>
  );
}
