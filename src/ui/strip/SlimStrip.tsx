/** The strip at the height of a line: the rig from nose to tail in names, with what is known of each. */
import { TriangleAlert } from 'lucide-react';
import { Sign } from './glyphs';
import type { SlimPart } from './slim';

const LINE: Readonly<Record<SlimPart['side'], string>> = {
  engine: 'border-secondary',
  coach: 'border-info border-double',
  both: 'border-base-content',
};

const CELL =
  'flex h-10 flex-auto items-center justify-center gap-1 border-b-6 px-1.5 text-base font-semibold whitespace-nowrap';
/** Suspicion from which a part stands out. */
const MUCH = 0.25;

/** In words, for who hears it. */
const spoken = ({ name, reads, suspected, finding }: SlimPart): string =>
  [
    name,
    ...(reads === undefined ? [] : [reads === 'ok' ? 'in band' : reads]),
    ...(suspected === undefined ? [] : [`suspected, ${Math.round(100 * suspected)} percent`]),
    ...(finding === undefined ? [] : [finding === 'danger' ? 'a rule calls it a danger' : 'a rule speaks of it']),
  ].join(', ');

export function SlimStrip({ parts }: { parts: readonly SlimPart[] }) {
  return (
    <section className="border-b-2 border-base-content bg-base-200" aria-label="Loom strip, slim">
      <ol className="flex flex-wrap">
        {parts.map((p) => (
          <li
            key={p.id}
            aria-label={spoken(p)}
            className={`${CELL} ${LINE[p.side]} ${(p.suspected ?? 0) >= MUCH ? 'bg-base-100' : ''}`}
          >
            <span className="font-cond">{p.name}</span>
            {p.reads !== undefined && <Sign verdict={p.reads} size={15} />}
            {p.suspected !== undefined && (
              <span className="badge badge-neutral badge-sm px-1.5 font-cond text-base">
                {Math.round(100 * p.suspected)} %
              </span>
            )}
            {p.finding !== undefined && (
              <TriangleAlert
                size={17}
                aria-hidden="true"
                className={p.finding === 'danger' ? 'text-error' : 'text-warning'}
              />
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
