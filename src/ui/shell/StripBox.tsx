'use client';
/** The loom strip over a station, tall or slim. */
import { clsx } from 'clsx';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { LoomStrip } from '../strip/LoomStrip';
import { SlimStrip } from '../strip/SlimStrip';
import { slimStrip } from '../strip/slim';
import { flagFaces } from './flagFaces';
import { useAnswers, usePlace, useJobFile, useMeasuring } from './jobPage';
import { scrolling } from '../useMedia';

/** Tall where one measures or places things; slim elsewhere, unless somebody wants it otherwise. */
export function StripBox({ tall }: { tall: boolean }) {
  return tall ? <TallStrip /> : <ShortStrip />;
}

/** What each part is suspected of, while the fault is looked for. */
function useSuspects(): Readonly<Record<string, number>> | undefined {
  const { diagnosis } = useAnswers();
  const { station } = usePlace();
  return useMemo(() => {
    if (!diagnosis || station !== 'fault') return undefined;
    const shares: Record<string, number> = {};
    for (const s of diagnosis.suspects) if (s.part) shares[s.part] = (shares[s.part] ?? 0) + s.probability;
    return shares;
  }, [diagnosis, station]);
}

function ShortStrip() {
  const { rig, job } = useJobFile();
  const { measurements, readings, band } = useMeasuring();
  const { preview, ruled } = usePlace();
  const suspects = useSuspects();
  const state = job.rigState.id;
  const faces = useMemo(
    () => flagFaces({ measurements, readings, band }, state),
    [measurements, readings, band, state],
  );
  const shown = preview ?? rig;
  const parts = useMemo(() => slimStrip(shown, faces, suspects, ruled), [shown, faces, suspects, ruled]);
  return <SlimStrip parts={parts} />;
}

function TallStrip() {
  const { rig, job, settings, words } = useJobFile();
  const { selected, measurements, readings, band, select } = useMeasuring();
  const { preview, ruled, station, go } = usePlace();
  const pan = useRef<HTMLDivElement>(null);
  const state = job.rigState.id;
  const faces = useMemo(
    () => flagFaces({ measurements, readings, band }, state),
    [measurements, readings, band, state],
  );
  const suspects = useSuspects();
  // The strip is heavy to draw: it gets a callback that never changes, which asks the newest page.
  const newest = useRef({ measurements, select, station, go });
  useEffect(() => {
    newest.current = { measurements, select, station, go };
  });
  const pick = useCallback((key: string) => {
    const { measurements: all, select, station: at, go } = newest.current;
    const m = all.find((x) => x.red === key && x.kind !== 'drop');
    if (!m) return;
    select(m);
    if (at !== 'readings' && at !== 'prove') go('readings');
  }, []);
  // Keep the probe in hand in sight where the strip is wider than the screen.
  useEffect(() => {
    const box = pan.current;
    if (!box || box.scrollWidth <= box.clientWidth || !selected) return;
    const flag = box.querySelector('[aria-pressed="true"]');
    if (flag) {
      const a = flag.getBoundingClientRect();
      const b = box.getBoundingClientRect();
      box.scrollBy({ left: a.left + a.width / 2 - (b.left + b.width / 2), behavior: scrolling() });
    }
  }, [selected]);
  // Most rigs fit a wide screen; one of very many parts is panned there too.
  const [wide, setWide] = useState(false);
  useEffect(() => {
    const box = pan.current;
    if (!box) return;
    const look = new ResizeObserver(() => setWide(box.scrollWidth > (box.parentElement?.clientWidth ?? 0) + 1));
    look.observe(box);
    if (box.firstElementChild) look.observe(box.firstElementChild);
    return () => look.disconnect();
  }, []);
  const shift = (by: number) => pan.current?.scrollBy({ left: by, behavior: scrolling() });
  const linkOn = job.rigState.id === 'idle' || job.rigState.id === 'boost-engine-off' || job.rigState.id === 'key-on';
  const first = rig.probes[0]?.label;
  const last = rig.probes.at(-1)?.label;
  return (
    <section
      className={clsx(
        'flex justify-center',
        'h-79.5 min-w-0 pt-0.75 overflow-hidden border-b-2 border-ink bg-paper',
        'is-wide:w-full',
        wide ? 'stripbox wide' : 'stripbox',
      )}
      aria-label="Loom strip"
    >
      <button
        type="button"
        className={clsx(
          'hidden place-content-center flex-none justify-items-center gap-1',
          'w-12 -mt-0.75 border-r border-ink bg-card',
          'font-cond font-semibold text-plain text-center leading-close',
          'max-narrow:grid within-wide:grid',
        )}
        onClick={() => shift(-420)}
        aria-label="Pan toward the nose"
      >
        <ChevronLeft size={20} aria-hidden="true" />
        <b>{first}</b>nose
      </button>
      <div className="pan flex-1 min-w-0 overflow-x-auto overflow-y-hidden" ref={pan}>
        <LoomStrip
          rig={preview ?? rig}
          faces={faces}
          onPick={pick}
          linkClosed={linkOn}
          unit={settings.length}
          gauge={settings.gauge}
          words={words}
          {...(selected ? { red: selected.red } : {})}
          {...(selected?.black === undefined ? {} : { black: selected.black })}
          {...(suspects ? { suspects } : {})}
          {...(ruled ? { findings: ruled } : {})}
        />
      </div>
      <button
        type="button"
        className={clsx(
          'r',
          'hidden place-content-center flex-none justify-items-center gap-1',
          'w-12 -mt-0.75 border-l border-ink bg-card',
          'font-cond font-semibold text-plain text-center leading-close',
          'max-narrow:grid within-wide:grid',
        )}
        onClick={() => shift(420)}
        aria-label="Pan toward the tail"
      >
        <ChevronRight size={20} aria-hidden="true" />
        <b>{last}</b>tail
      </button>
    </section>
  );
}
