'use client';
/** The loom strip over a station, tall or slim. */
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { LoomStrip } from '../strip/LoomStrip';
import { SlimStrip } from '../strip/SlimStrip';
import { slimStrip } from '../strip/slim';
import { flagFaces } from './flagFaces';
import { useJobPage } from './jobPage';
import { scrolling } from '../useMedia';

/** Tall where one measures or places things; slim elsewhere, unless somebody wants it otherwise. */
export function StripBox({ tall }: { tall: boolean }) {
  return tall ? <TallStrip /> : <ShortStrip />;
}

/** What each part is suspected of, while the fault is looked for. */
function useSuspects(): Readonly<Record<string, number>> | undefined {
  const { diagnosis, station } = useJobPage();
  return useMemo(() => {
    if (!diagnosis || station !== 'fault') return undefined;
    const shares: Record<string, number> = {};
    for (const s of diagnosis.suspects) if (s.part) shares[s.part] = (shares[s.part] ?? 0) + s.probability;
    return shares;
  }, [diagnosis, station]);
}

function ShortStrip() {
  const { rig, preview, ruled, measurements, readings, band, job } = useJobPage();
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
  const page = useJobPage();
  const { rig, preview, ruled, selected, measurements, readings, band, job } = page;
  const pan = useRef<HTMLDivElement>(null);
  const state = job.rigState.id;
  const faces = useMemo(
    () => flagFaces({ measurements, readings, band }, state),
    [measurements, readings, band, state],
  );
  const suspects = useSuspects();
  // The strip is heavy to draw: it gets a callback that never changes, which asks the newest page.
  const newest = useRef(page);
  useEffect(() => {
    newest.current = page;
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
    <section className={wide ? 'stripbox wide' : 'stripbox'} aria-label="Loom strip">
      <button type="button" className="edge l" onClick={() => shift(-420)} aria-label="Pan toward the nose">
        <ChevronLeft size={20} aria-hidden="true" />
        <b>{first}</b>nose
      </button>
      <div className="pan" ref={pan}>
        <LoomStrip
          rig={preview ?? rig}
          faces={faces}
          onPick={pick}
          linkClosed={linkOn}
          unit={page.settings.length}
          gauge={page.settings.gauge}
          words={page.words}
          {...(selected ? { red: selected.red } : {})}
          {...(selected?.black === undefined ? {} : { black: selected.black })}
          {...(suspects ? { suspects } : {})}
          {...(ruled ? { findings: ruled } : {})}
        />
      </div>
      <button type="button" className="edge r" onClick={() => shift(420)} aria-label="Pan toward the tail">
        <ChevronRight size={20} aria-hidden="true" />
        <b>{last}</b>tail
      </button>
    </section>
  );
}
