'use client';
/** How big a DC-DC charger should be: what the bank asks, what each thing allows, as bars on one scale of amps. */
import { clsx } from 'clsx';
import { CircleCheck, TriangleAlert } from 'lucide-react';
import type { Autofix } from '../../core/rules/rule';
import type { Sized } from '../../core/rules/sized';
import type { Lockout } from '../../core/size/lockouts';
import { NumberField } from '../fields';
import { useJobFile } from '../shell/jobPage';

/** A it takes at most, of what it gives: volts and losses (common practice). */
const INPUT_OVER_OUTPUT = 1.3;

interface ChargerPanelProps {
  sized: Sized;
  mend(m: Autofix): void;
  upfit: number | undefined;
  setUpfit(amps: number | undefined): void;
}

export function ChargerPanel({ sized, mend, upfit, setUpfit }: ChargerPanelProps) {
  const { words } = useJobFile();
  const make = (part: string, amps: number) => {
    const set = (value: number) => ({ value, spread: 0.05, provenance: 'nameplate' as const });
    mend({
      part,
      set: {
        note: `${amps} A`,
        params: { limit: set(amps), inLimit: set(Math.round(amps * INPUT_OVER_OUTPUT * 1.2)) },
      },
    });
  };
  return (
    <div className="oscroll szthresholds flex-auto min-h-0">
      {sized.chargers.map((c) => {
        const most =
          Math.max(c.asks, c.now, c.pick, ...c.bounds.map((b) => Math.min(b.amps, 3 * Math.max(c.asks, c.now)))) * 1.05;
        const share = (amps: number) => `${Math.min(100, (amps / most) * 100).toFixed(1)}%`;
        return (
          <section
            className="grid gap-1.75 px-4 pt-2.5 pb-4 border-b-1 border-rule text-plain leading-tight"
            key={c.part}
            aria-label={words(c.name)}
          >
            <h2 className="font-cond font-bold text-figure leading-close">
              {words(c.name)} <small className="font-medium text-plain text-ink-2">{c.now} A as drawn</small>
            </h2>
            <dl
              className={clsx(
                'szbars',
                'grid grid-cols-names items-start gap-x-3 gap-y-2.5',
                'max-phone:grid-cols-1 max-phone:gap-0.5',
              )}
            >
              <dt className="pt-0.5 font-cond font-semibold text-lead leading-close">The bank asks</dt>
              <dd className="grid items-center gap-x-2.5 gap-y-0.25 max-phone:pb-2">
                <i
                  className="asks block gap-1.5 h-5 min-w-0.5 border border-ink bg-ink"
                  style={{ width: share(c.asks) }}
                />
                <b className="font-cond text-large whitespace-nowrap">{c.asks.toFixed(0)} A</b>
                <small className="col-span-full text-note text-ink-2">{words(c.asksSays)}</small>
              </dd>
              {c.bounds.map((b) => (
                <Bound
                  key={b.id}
                  label={words(b.label)}
                  width={share(b.amps)}
                  amps={b.amps}
                  says={words(b.says)}
                  tight={b.amps < c.asks}
                />
              ))}
            </dl>
            <p className={`omark${c.verdict === 'right' ? '' : ' bad'}`}>
              {c.verdict === 'right' ? (
                <CircleCheck size={18} aria-hidden="true" />
              ) : (
                <TriangleAlert size={18} aria-hidden="true" />
              )}
              <b className="text-large">
                {c.verdict === 'right' ? `${c.now} A is right` : `${c.now} A is ${c.verdict}`}
              </b>
            </p>
            <p>{words(c.says)}</p>
            {sized.revision && c.verdict !== 'right' && c.pick !== c.now && (
              <button type="button" className="btn justify-self-start" onClick={() => make(c.part, c.pick)}>
                Make it {c.pick} A
              </button>
            )}
            {sized.lockouts
              .filter((l) => l.part === c.part)
              .map((l) => (
                <LockoutLines key={l.part} lockout={l} {...(sized.revision ? { mend } : {})} />
              ))}
          </section>
        );
      })}
      <section className="grid gap-1.75 px-4 pt-2.5 pb-4 border-b-1 border-rule text-plain leading-tight">
        <NumberField
          late
          label="Maker’s upfit limit, 0 where none is known"
          unit="A"
          value={upfit ?? 0}
          min={0}
          max={500}
          onChange={(amps) => setUpfit(amps > 0 ? amps : undefined)}
        />
        <p className="quiet">
          Vehicle makers publish how much an upfitter may take: 40 to 80 A on many vans (common practice). One charger
          for each run; a bank’s label and the maker’s guide come first.
        </p>
      </section>
    </div>
  );
}

/** What its input sees under load, against what it locks out at. */
function LockoutLines({ lockout: l, mend }: { lockout: Lockout; mend?(m: Autofix): void }) {
  const { words } = useJobFile();
  const param = (value: number) => ({ value, spread: 0.05, provenance: 'nameplate' as const });
  return (
    <>
      <h3 className="mt-2 font-cond font-bold text-head leading-close">Input lockout</h3>
      <p className={`omark${l.verdict === 'holds' ? '' : ' bad'}`}>
        {l.verdict === 'holds' ? (
          <CircleCheck size={18} aria-hidden="true" />
        ) : (
          <TriangleAlert size={18} aria-hidden="true" />
        )}
        <b className="text-large">{l.verdict}</b>
      </p>
      <p>{words(l.says)}</p>
      <p className="quiet">
        Running at idle {l.loaded.lo.toFixed(1)} to {l.loaded.hi.toFixed(1)} V, before it starts{' '}
        {l.before.lo.toFixed(1)} to {l.before.hi.toFixed(1)} V
        {l.fedBy ? `; ${(l.loopOhms * 1000).toFixed(0)} mΩ from ${words(l.fedBy)} out and back` : ''}. Middle 95 % of
        what the assumptions allow.
      </p>
      {l.wants && mend && (
        <button
          type="button"
          className="btn justify-self-start"
          onClick={() =>
            mend({
              part: l.part,
              set: { params: { lockout: param(l.wants!.lockout), restart: param(l.wants!.restart) } },
            })
          }
        >
          Lock out at {l.wants.lockout.toFixed(1)} V, restart at {l.wants.restart.toFixed(1)} V
        </button>
      )}
    </>
  );
}

function Bound({
  label,
  width,
  amps,
  says,
  tight,
}: {
  label: string;
  width: string;
  amps: number;
  says: string;
  tight: boolean;
}) {
  return (
    <>
      <dt className="pt-0.5 font-cond font-semibold text-lead leading-close">{label}</dt>
      <dd className="grid items-center gap-x-2.5 gap-y-0.25 max-phone:pb-2">
        <i
          className={clsx(
            'block',
            'h-5 min-w-0.5 border border-coach bg-coach-tint',
            'is-tight:border-dashed is-tight:border-fail is-tight:bg-fail-tint',
            tight ? 'tight' : '',
          )}
          style={{ width }}
        />
        <b className="font-cond text-large whitespace-nowrap">
          {amps.toFixed(0)} A{tight ? ', less than asked' : ''}
        </b>
        <small className="col-span-full text-note text-ink-2">{says}</small>
      </dd>
    </>
  );
}
