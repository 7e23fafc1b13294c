/** What the strip's harness is drawn upon: the vehicles' outlines in their sides' wash, and the ruler. */
import { sideAt, STRIP, type StripLayout } from './geometry';
import { feetTicks, rulerLabels } from './ruler';
import { coupling, outline } from './vehicles';

export function Backdrop({ layout }: { layout: StripLayout }) {
  const { rail, railHeight, roof } = STRIP;
  const floor = rail + railHeight;
  const { shells, width } = layout;
  const alone = shells.length === 1;
  return (
    <>
      {shells.map((s) => (
        <clipPath id={`shell-${s.id}`} key={s.id}>
          <path d={outline(s.role, s.x0, s.x1)} />
        </clipPath>
      ))}
      {shells.map((s) => (
        <g key={s.id} clipPath={`url(#shell-${s.id})`}>
          <rect
            x={0}
            y={roof - 10}
            width={layout.meet}
            height={floor - roof + 10}
            className={`wash-${sideAt(layout, 0)}`}
          />
          <rect
            x={layout.meet}
            y={roof - 10}
            width={width - layout.meet}
            height={floor - roof + 10}
            className={`wash-${sideAt(layout, width)}`}
          />
        </g>
      ))}
      {shells.map((s, i) => (
        <g key={s.id}>
          <path d={outline(s.role, s.x0, s.x1)} className="body" />
          {i > 0 && <path d={coupling(s.role, shells[i - 1]!.x1, s.x0) ?? ''} className="hitch" />}
        </g>
      ))}
      {alone && shells[0]!.role === 'motorhome' && (
        <path d={`M16 192Q17 172 20 158L28 124M12 202h8M12 236h8`} className="body" />
      )}
      {alone && (
        <path
          d={`M${layout.meet} ${roof + 2}V${STRIP.main - 8}M${layout.meet} ${STRIP.icon + 56}V${rail}`}
          className="body"
          strokeDasharray="8 3 2 3"
        />
      )}
    </>
  );
}

export function Ruler({ layout, unit }: { layout: StripLayout; unit: 'ft' | 'm' }) {
  const other = unit === 'ft' ? 'm' : 'ft';
  return (
    <g aria-hidden="true">
      {feetTicks(layout).map((t) => (
        <rect
          key={t.x0}
          x={t.x0}
          y={STRIP.bar}
          width={t.x1 - t.x0}
          height={5}
          className={t.dark ? 'tick dark' : 'tick'}
        />
      ))}
      {rulerLabels(layout, unit, 26).map((l) => (
        <text
          key={l.text}
          x={Math.min(l.x, layout.width - 12)}
          y={STRIP.feet}
          className="rail-text"
          textAnchor={l.x < 20 ? 'start' : 'middle'}
        >
          {l.text}
        </text>
      ))}
      {rulerLabels(layout, other, 34).map((l) => (
        <text
          key={l.text}
          x={Math.min(l.x, layout.width - 12)}
          y={STRIP.metres}
          className="rail-text quiet"
          textAnchor={l.x < 20 ? 'start' : 'middle'}
        >
          {l.text}
        </text>
      ))}
    </g>
  );
}
