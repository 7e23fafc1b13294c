'use client';
/** What the trailer has behind its plug: charger, fridge, brakes, breakaway battery. */
import { ENGINE_OFF_VOLTS, ENGINE_ON_VOLTS } from '../../../core/parts/entries/dcdc';
import { USUAL_BREAKAWAY, type TowInterface } from '../../../core/rig/tow';
import { useJobFile } from '../../shell/jobPage';
import { Choose, NumberField } from '../../fields';
import { shownIn, storedFrom, unitOf } from '../../../core/units/quantity';

/** A mass to start from where nobody has read the plate; asked, never assumed. */
const USUAL_MASS: Readonly<Record<string, number>> = { lb: 3500, kg: 1500 };

/** Without the battery, and without what hung on a pin to charge it. */
function withoutBreakaway({ breakaway: _, ...tow }: TowInterface): TowInterface {
  return {
    ...tow,
    plugs: tow.plugs.map((p) => ({
      ...p,
      ways: p.ways.map((w) => ({ ...w, uses: w.uses.filter((u) => u !== 'breakaway') })),
    })),
  };
}

export function TrailerEditor({ tow, describe }: { tow: TowInterface; describe(tow: TowInterface): void }) {
  const { words, settings } = useJobFile();
  const { charger, fridge, brakes, breakaway, mass } = tow;
  return (
    <section
      className="twtrailer grid gap-2 px-3.5 py-2.5 border-b-1 border-rule"
      aria-label={words('Behind the plug')}
    >
      <h3 className="font-cond font-bold text-head leading-close">{words('Behind the plug')}</h3>
      <div className="twcols grid grid-cols-3 items-start gap-x-5 gap-y-2.5 max-phone:grid-cols-1">
        {charger && (
          <fieldset className="grid gap-2 min-w-0">
            <legend className="pb-1 font-cond font-semibold text-lead">DC-DC charger</legend>
            <NumberField
              late
              label="Gives"
              unit="A"
              value={charger.amps}
              min={1}
              max={200}
              onChange={(amps) => describe({ ...tow, charger: { ...charger, amps } })}
            />
            <NumberField
              late
              label="Takes at most"
              unit="A"
              value={charger.inLimit}
              min={1}
              max={400}
              onChange={(inLimit) => describe({ ...tow, charger: { ...charger, inLimit } })}
            />
            <NumberField
              late
              label="Stops below"
              unit="V"
              value={charger.lockout}
              min={5}
              max={30}
              onChange={(lockout) => describe({ ...tow, charger: { ...charger, lockout } })}
            />
            <Choose
              label="Enabled by"
              choices={[
                { id: 'wire', label: 'ignition wire' },
                { id: 'pin', label: 'a pin' },
                { id: 'wire', label: 'an ignition wire of its own' },
                { id: 'sense', label: 'its volts' },
                { id: 'always', label: 'always on' },
              ]}
              value={charger.enable}
              onChange={(enable) => describe({ ...tow, charger: { ...charger, enable } })}
            />
            {charger.enable === 'sense' && (
              <>
                <NumberField
                  late
                  label="Takes the engine to run above"
                  unit="V"
                  value={charger.startsAt ?? ENGINE_ON_VOLTS}
                  min={5}
                  max={30}
                  onChange={(startsAt) => describe({ ...tow, charger: { ...charger, startsAt } })}
                />
                <NumberField
                  late
                  label="and to stand below"
                  unit="V"
                  value={charger.stopsAt ?? ENGINE_OFF_VOLTS}
                  min={5}
                  max={30}
                  onChange={(stopsAt) => describe({ ...tow, charger: { ...charger, stopsAt } })}
                />
              </>
            )}
          </fieldset>
        )}
        {fridge && (
          <fieldset className="grid gap-2 min-w-0">
            <legend className="pb-1 font-cond font-semibold text-lead">Fridge element</legend>
            <NumberField
              late
              label="At 12 V"
              unit="W"
              value={fridge.watts}
              min={10}
              max={2000}
              onChange={(watts) => describe({ ...tow, fridge: { ...fridge, watts } })}
            />
            <Choose
              label="Its relay’s coil"
              choices={[
                { id: 'none', label: 'no relay' },
                { id: 'looped', label: 'looped to the feed' },
                { id: 'pin', label: 'a pin' },
              ]}
              value={fridge.trigger}
              onChange={(trigger) => describe({ ...tow, fridge: { ...fridge, trigger } })}
            />
          </fieldset>
        )}
        {brakes && (
          <fieldset className="grid gap-2 min-w-0">
            <legend className="pb-1 font-cond font-semibold text-lead">Electric brakes</legend>
            <NumberField
              late
              label="All magnets"
              unit="A"
              value={brakes.amps}
              min={1}
              max={60}
              onChange={(amps) => describe({ ...tow, brakes: { ...brakes, amps } })}
            />
            <Choose
              label="Fed by"
              choices={[
                { id: 'pin', label: 'brake controller' },
                { id: 'converter', label: 'a converter' },
              ]}
              value={brakes.supply}
              onChange={(supply) => describe({ ...tow, brakes: { ...brakes, supply } })}
            />
          </fieldset>
        )}
        {(brakes ?? breakaway) && (
          <fieldset className="grid gap-2 min-w-0">
            <legend className="pb-1 font-cond font-semibold text-lead">{words('Trailer')}</legend>
            {mass === undefined ? (
              <button
                type="button"
                className="btn"
                onClick={() =>
                  describe({ ...tow, mass: storedFrom('mass', USUAL_MASS[unitOf('mass', settings)]!, settings) })
                }
              >
                Enter its loaded mass
              </button>
            ) : (
              <NumberField
                late
                label="Loaded mass"
                unit={unitOf('mass', settings)}
                value={shownIn('mass', mass, settings)}
                min={120}
                max={30_000}
                onChange={(shown) => describe({ ...tow, mass: storedFrom('mass', shown, settings) })}
              />
            )}
          </fieldset>
        )}
        {brakes && !breakaway && (
          <fieldset className="grid gap-2 min-w-0">
            <legend className="pb-1 font-cond font-semibold text-lead">Breakaway battery</legend>
            <button type="button" className="btn" onClick={() => describe({ ...tow, breakaway: USUAL_BREAKAWAY })}>
              It has one
            </button>
          </fieldset>
        )}
        {breakaway && (
          <fieldset className="grid gap-2 min-w-0">
            <legend className="pb-1 font-cond font-semibold text-lead">Breakaway battery</legend>
            <NumberField
              late
              label="Capacity"
              unit="Ah"
              value={breakaway.capacity}
              min={0.5}
              max={200}
              onChange={(capacity) => describe({ ...tow, breakaway: { ...breakaway, capacity } })}
            />
            <NumberField
              late
              label="Charge"
              unit="%"
              value={breakaway.soc * 100}
              min={0}
              max={100}
              onChange={(soc) => describe({ ...tow, breakaway: { ...breakaway, soc: soc / 100 } })}
            />
            <button type="button" className="btn" onClick={() => describe(withoutBreakaway(tow))}>
              It has none
            </button>
          </fieldset>
        )}
      </div>
    </section>
  );
}
