'use client';
/** A connector drawn face-on: looking into the vehicle's socket, or at the trailer's plug, its mirror. */
import { connectorOf, facing, POSITION_WORDS, positionShown, type Position } from '../../../core/parts/connectors';
import type { TowPlug } from '../../../core/rig/tow';

const SIZE = 100;
const HEIGHT = { round: 220, flat: 108, block: 108 } as const;
const FLAT_SCALE = 92;

interface FaceProps {
  plug: TowPlug;
  side: 'socket' | 'plug';
  picked: string | undefined;
  bad: ReadonlySet<string>;
  pick(pin: string): void;
  words(text: string): string;
}

/** Wired positions are solid, unwired hollow; a trouble has a ring of its own besides its colour. */
export function Face({ plug, side, picked, bad, pick, words }: FaceProps) {
  const connector = connectorOf(plug.connector);
  const convention = connector.conventions.find((c) => c.id === plug.convention) ?? connector.conventions[0]!;
  const round = connector.body === 'round';
  const height = HEIGHT[connector.body];
  const at = (p: Position) => ({ x: p.x * (round ? SIZE : FLAT_SCALE), y: p.y * (round ? SIZE : 66) });
  const r = connector.positions.length > 9 ? 13 : round ? 16 : connector.positions.length > 6 ? 11.5 : 17;
  const keyDown = connector.key.includes('bottom');
  return (
    <figure className="twface">
      <figcaption>
        <b>{side === 'socket' ? words('Vehicle’s socket') : words('Trailer’s plug')}</b>
        <small>{side === 'socket' ? 'looking in' : 'looking at its face'}</small>
      </figcaption>
      <svg
        viewBox={`-110 ${-height / 2} 220 ${height}`}
        width="100%"
        role="group"
        aria-label={`${connector.label}, ${side}`}
      >
        {round ? (
          <>
            <circle r={104} className="twshell" />
            <circle r={96} className={`twwell ${side}`} />
            <path d={keyDown ? 'M-11 88h22v13h-22z' : 'M-11 -101h22v13h-22z'} className="twkey" />
          </>
        ) : (
          <>
            <rect
              x={-107}
              y={-height / 2 + 3}
              width={214}
              height={height - 6}
              rx={connector.body === 'block' ? 6 : 16}
              className="twshell"
            />
            <rect
              x={-100}
              y={-height / 2 + 10}
              width={200}
              height={height - 20}
              rx={connector.body === 'block' ? 4 : 11}
              className={`twwell ${side}`}
            />
          </>
        )}
        {facing(connector, side).map((p) => {
          const { x, y } = at(p);
          const way = plug.ways.find((w) => w.pin === p.id);
          const wired = side === 'socket' ? way !== undefined && way.feed !== 'none' : (way?.uses.length ?? 0) > 0;
          const hole = connector.contact === 'blade' && Math.hypot(p.x, p.y) > 0.2;
          const turn = (Math.atan2(p.y, p.x) * 180) / Math.PI + 90;
          return (
            <g
              key={p.id}
              className={`twpin${wired ? ' wired' : ''}${picked === p.id ? ' on' : ''}${bad.has(p.id) ? ' bad' : ''}`}
              transform={`translate(${x.toFixed(1)} ${y.toFixed(1)})`}
              role="button"
              tabIndex={0}
              aria-pressed={picked === p.id}
              aria-label={
                `Pin ${positionShown(p.id)}, ${words(POSITION_WORDS[convention.uses[p.id]!])}` +
                `${wired ? '' : ', not wired'}${bad.has(p.id) ? ', something is wrong' : ''}`
              }
              onClick={() => pick(p.id)}
              onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), pick(p.id))}
            >
              {bad.has(p.id) &&
                (connector.contact === 'bar' ? (
                  <rect x={-36} y={-32} width={72} height={64} rx={6} className="twring" />
                ) : (
                  <circle r={r + 6} className="twring" />
                ))}
              {hole ? (
                <rect
                  x={-r}
                  y={-r * 0.72}
                  width={2 * r}
                  height={1.44 * r}
                  rx={4}
                  transform={`rotate(${turn.toFixed(0)})`}
                  className="twhole"
                />
              ) : connector.contact === 'bar' ? (
                <rect x={-30} y={-26} width={60} height={52} rx={3} className="twhole" />
              ) : (
                <circle r={r} className="twhole" />
              )}
              <text textAnchor="middle" dominantBaseline="central">
                {positionShown(p.id)}
              </text>
            </g>
          );
        })}
      </svg>
    </figure>
  );
}
