/** The tow interface of a rig nobody described: a charger is taken for what it was drawn as, by every way of telling it. */
import { describe, expect, it } from 'vitest';
import { ENABLE_SCHOOLS } from '../../parts/enableSchools';
import { coupledRig, USUAL_COUPLED } from '../../rig/archetypes/coupled';
import { towVehicle } from '../../compile/tow/vehicle';
import { ownerSentences } from '../../documents/ownerCard';
import { solveTow } from '../../operate/tow/solveTow';
import { DEFAULT_SETTINGS } from '../../shop/shop';
import { usualTow } from './usual';

const trailer = (enable: (typeof ENABLE_SCHOOLS)[number]['id']) =>
  coupledRig('t', 'T', { ...USUAL_COUPLED.trailer, link: 'dcdc', enable });

describe('a charger behind the plug', () => {
  it.each([
    ['ignition', 'wire'],
    ['manual', 'wire'],
    ['volts', 'sense'],
    ['marker-lights', 'pin'],
    ['always', 'always'],
  ] as const)('told to run by %s is audited as such: %s', (enable, told) => {
    expect(usualTow(trailer(enable))!.charger!.enable).toBe(told);
  });

  it('is audited by every school there is', () => {
    for (const { id } of ENABLE_SCHOOLS) expect(usualTow(trailer(id))?.charger?.enable, id).toBeDefined();
  });

  it('that goes by volts is audited by the volts that are drawn: one truth about one unit', () => {
    const rig = trailer('volts');
    const set = (on: number, off: number) => ({
      ...rig,
      parts: rig.parts.map((p) =>
        p.id === 'dcdc'
          ? {
              ...p,
              params: {
                ...p.params,
                on: { value: on, spread: 0, provenance: 'nameplate' as const },
                off: { value: off, spread: 0, provenance: 'nameplate' as const },
              },
            }
          : p,
      ),
    });
    expect(usualTow(set(13.5, 13.1))!.charger).toMatchObject({ startsAt: 13.5, stopsAt: 13.1 });
    const onTheRoad = (r: typeof rig) =>
      solveTow(usualTow(r)!, towVehicle(r)!).find((s) => s.situation.id === 'road')!.charger;
    expect(onTheRoad(set(13.2, 12.8))).toBe('on');
    // Higher than the start battery ever stands.
    expect(onTheRoad(set(15.5, 15))).toBe('off');
  });

  it('that looks at volts says so on the owner’s card, one by the key says that', () => {
    const card = (enable: 'volts' | 'ignition') => ownerSentences('works', trailer(enable), DEFAULT_SETTINGS).join(' ');
    expect(card('volts')).toContain('starts by itself some minutes after the engine');
    expect(card('ignition')).toContain('while the key is on');
  });
});
