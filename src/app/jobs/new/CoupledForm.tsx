'use client';
/** The choices two coupled vehicles are drawn from. */
import { ENABLE_SCHOOLS } from '@/core/parts/enableSchools';
import { linksFor, USUAL_HOUSE, USUAL_VAN_AMPS } from '@/core/rig/archetypes/coupledChoices';
import type { CoupledChoices } from '@/core/rig/archetypes/coupledSchema';
import { IgnitionLiveChoice } from './IgnitionLiveChoice';
import { Bank, Choose, Group, LengthField, NONE_OR, NumberField, Says } from './rigFields';

interface CoupledFormProps {
  c: CoupledChoices;
  /** A wire of the rig comes from its ignition. */
  tapped: boolean;
  /** W of a fridge's element where the shop works. */
  usualFridge: number;
  set(part: Partial<CoupledChoices>): void;
}

export function CoupledForm({ c, tapped, usualFridge, set }: CoupledFormProps) {
  const car = c.family === 'towed-car';
  const links = linksFor(c.family);
  const charger = c.link.startsWith('dcdc') || c.link === 'chained';
  return (
    <>
      <div className="grid gap-3">
        <Group title={car ? 'Motorhome in front' : 'Vehicle in front'}>
          <LengthField label="Length" metres={c.towLength} between={[3, 15]} put={(towLength) => set({ towLength })} />
          <NumberField
            label="Alternator rating"
            unit="A"
            value={c.alternatorAmps}
            min={20}
            max={600}
            onChange={(alternatorAmps) => set({ alternatorAmps })}
          />
          <Choose
            label="Its regulator"
            choices={
              [
                { id: false, label: 'Ordinary' },
                { id: true, label: 'Smart' },
              ] as const
            }
            value={c.smart}
            onChange={(smart) => set({ smart })}
          />
        </Group>
        <Group title="What links the batteries">
          {car && (
            <Choose
              label="Line fed from"
              choices={
                [
                  { id: 'start', label: 'Start battery' },
                  { id: 'house', label: 'House bank' },
                ] as const
              }
              value={c.source ?? 'start'}
              onChange={(source) => set({ source })}
            />
          )}
          <Choose label="Link" choices={links} value={c.link} onChange={(link) => set({ link })} />
          <Says>{`${links.find((l) => l.id === c.link)?.says ?? links[0]!.says}.`}</Says>
          {(!charger || c.link === 'dcdc-pin') && c.chargerAt !== 'tow' && c.link !== 'heavy-line' && (
            <Choose
              label="Fed"
              choices={
                [
                  { id: 'ignition', label: 'With the ignition' },
                  { id: 'constant', label: 'Always' },
                ] as const
              }
              value={c.feed}
              onChange={(feed) => set({ feed })}
            />
          )}
          {charger && (
            <>
              <NumberField
                label="Charger output"
                unit="A"
                value={c.dcdcAmps ?? (c.link === 'dcdc-pin' ? 12 : 40)}
                min={5}
                max={120}
                onChange={(dcdcAmps) => set({ dcdcAmps })}
              />
              {(c.family === 'trailer' || c.family === 'camper' || c.family === 'towed-car') && (
                <Choose
                  label="Charger stands"
                  choices={
                    [
                      { id: 'behind', label: 'Behind the plug' },
                      { id: 'tow', label: 'Before the plug' },
                    ] as const
                  }
                  value={c.chargerAt ?? 'behind'}
                  onChange={(chargerAt) => set({ chargerAt })}
                />
              )}
              <Choose
                label="Enabled by"
                choices={ENABLE_SCHOOLS}
                value={c.enable ?? 'ignition'}
                onChange={(enable) => set({ enable })}
              />
              <Says>{`${ENABLE_SCHOOLS.find((e) => e.id === (c.enable ?? 'ignition'))!.speaksAgainst}.`}</Says>
            </>
          )}
          {tapped && <IgnitionLiveChoice c={c} set={set} />}
        </Group>
        <Bank title="Start battery" bank={c.start} change={(start) => set({ start })} />
        {car && c.source === 'house' && (
          <Bank title="House bank" bank={c.accessory ?? USUAL_HOUSE} change={(accessory) => set({ accessory })} />
        )}
      </div>
      <div className="grid gap-3">
        {c.accessory && !car && (
          <>
            <Bank title="Accessory battery in the van" bank={c.accessory} change={(accessory) => set({ accessory })} />
            <Group title="What fills it">
              <NumberField
                label="Van charger output"
                unit="A"
                value={c.accessoryAmps ?? USUAL_VAN_AMPS}
                min={5}
                max={120}
                onChange={(accessoryAmps) => set({ accessoryAmps })}
              />
            </Group>
          </>
        )}
        <Group title={car ? 'Towed car' : 'Behind'}>
          <LengthField
            label="Length"
            metres={c.behindLength}
            between={[2, 18]}
            put={(behindLength) => set({ behindLength })}
          />
          {car && (
            <Choose
              label="At the car’s battery"
              choices={
                [
                  { id: false, label: 'Fuse' },
                  { id: true, label: 'Breaker, set by hand' },
                ] as const
              }
              value={c.behindBreaker ?? false}
              onChange={(behindBreaker) => set({ behindBreaker })}
            />
          )}
          {!car && (
            <>
              <Choose
                label="Converter on shore power"
                choices={NONE_OR('Fitted')}
                value={c.shore}
                onChange={(shore) => set({ shore })}
              />
              <Choose
                label="Solar"
                choices={NONE_OR('On the roof')}
                value={c.solar}
                onChange={(solar) => set({ solar })}
              />
              <Choose
                label="Three-way fridge on the charge line"
                choices={NONE_OR('Fitted')}
                value={c.fridge}
                onChange={(fridge) => set({ fridge })}
              />
              {c.fridge && (
                <Choose
                  label="It goes to 12 V"
                  choices={
                    [
                      { id: 'hand', label: 'By hand' },
                      { id: 'itself', label: 'By itself, by a trigger' },
                    ] as const
                  }
                  value={c.fridgeSelects ?? 'hand'}
                  onChange={(fridgeSelects) => set({ fridgeSelects })}
                />
              )}
              {c.fridge && (
                <NumberField
                  label="Its element on 12 V"
                  unit="W"
                  value={c.fridgeWatts ?? usualFridge}
                  min={50}
                  max={500}
                  onChange={(fridgeWatts) => set({ fridgeWatts })}
                />
              )}
            </>
          )}
        </Group>
        <Bank
          title={car ? 'Battery of the car' : c.family === 'trailer-48' ? 'Bank behind, 48 V' : 'Bank behind'}
          bank={c.behind}
          change={(behind) => set({ behind })}
        />
      </div>
    </>
  );
}
