'use client';
/** The choices a motorhome is drawn from. */
import { ENABLE_SCHOOLS } from '@/core/parts/enableSchools';
import {
  CHARGER_CHOICES,
  DISCONNECT_CHOICES,
  ENGINE_CHOICES,
  LINK_CHOICES,
  MAINTAINER_CHOICES,
  SENSE_CHOICES,
} from '@/core/rig/archetypes/choices';
import type { MotorhomeChoices } from '@/core/rig/archetypes/choicesSchema';
import { IgnitionLiveChoice } from './IgnitionLiveChoice';
import { Bank, Choose, Group, LengthField, NONE_OR, NumberField, Says } from './rigFields';

/** Ways of enabling a charger that a motorhome offers: nothing is behind a plug there. */
const MOTORHOME_ENABLES = (['ignition', 'volts', 'manual', 'always'] as const).map((id) => ({
  id,
  label: ENABLE_SCHOOLS.find((s) => s.id === id)!.label,
}));

interface MotorhomeFormProps {
  c: MotorhomeChoices;
  /** A wire of the coach comes from its ignition. */
  tapped: boolean;
  set(part: Partial<MotorhomeChoices>): void;
}

export function MotorhomeForm({ c, tapped, set }: MotorhomeFormProps) {
  const alone = c.link === 'dcdc' || c.link === 'dcdc-dual';
  const solenoid = c.link !== 'diode' && !alone;
  const senses = c.link === 'bidirectional' || c.link === 'timed-window';
  return (
    <>
      <div className="grid gap-3">
        <Group title="Coach">
          <Choose
            label="Engine"
            choices={ENGINE_CHOICES}
            value={c.engineAt}
            onChange={(engineAt) => set({ engineAt })}
          />
          <Choose
            label="System"
            choices={
              [
                { id: 12, label: '12 V' },
                { id: 24, label: '24 V' },
              ] as const
            }
            value={c.nominalVolts}
            onChange={(nominalVolts) => set({ nominalVolts })}
          />
          <LengthField label="Length" metres={c.length} between={[4.2, 15]} put={(length) => set({ length })} />
          <NumberField
            label="Cables run longer than straight by"
            unit="%"
            value={Math.round(100 * (c.detour ?? 0))}
            min={0}
            max={150}
            onChange={(percent) => set({ detour: percent / 100 })}
          />
          <Choose
            label="House returns by"
            choices={
              [
                { id: 'steel', label: 'Steel frame' },
                { id: 'aluminum', label: 'Aluminum body' },
              ] as const
            }
            value={c.body ?? 'steel'}
            onChange={(body) => set({ body })}
          />
          <NumberField
            label="Alternator rating"
            unit="A"
            value={c.alternatorAmps}
            min={20}
            max={600}
            onChange={(alternatorAmps) => set({ alternatorAmps })}
          />
        </Group>
        <Group title="What links the banks">
          <Choose label="Link" choices={LINK_CHOICES} value={c.link} onChange={(link) => set({ link })} />
          <Says>{`${LINK_CHOICES.find((l) => l.id === c.link)!.says}.`}</Says>
          {solenoid && (
            <Choose
              label="Boost switch"
              choices={
                [
                  { id: true, label: 'On the dash' },
                  { id: false, label: 'None' },
                ] as const
              }
              value={c.boost}
              onChange={(boost) => set({ boost })}
            />
          )}
          {solenoid && c.boost && (
            <Choose
              label="It is"
              choices={
                [
                  { id: false, label: 'A switch of its own' },
                  { id: true, label: 'A key of a panel' },
                ] as const
              }
              value={c.switchPanel ?? false}
              onChange={(switchPanel) => set({ switchPanel })}
            />
          )}
          {c.link.startsWith('dcdc') && (
            <>
              <NumberField
                label="DC-DC output"
                unit="A"
                value={c.dcdcAmps ?? 40}
                min={5}
                max={120}
                onChange={(dcdcAmps) => set({ dcdcAmps })}
              />
              <Choose
                label="Enabled by"
                choices={MOTORHOME_ENABLES}
                value={c.enable ?? 'ignition'}
                onChange={(enable) => set({ enable })}
              />
            </>
          )}
          {alone && (
            <Choose
              label="Way round it"
              choices={
                [
                  { id: 'none', label: 'None' },
                  { id: 'switch', label: 'Hand switch' },
                  { id: 'keyed', label: 'Keyed connectors' },
                ] as const
              }
              value={c.bypass ? (c.bypassBy ?? 'switch') : 'none'}
              onChange={(by) => set(by === 'none' ? { bypass: false } : { bypass: true, bypassBy: by })}
            />
          )}
          {senses && (
            <Choose
              label="Coach sense wire"
              choices={SENSE_CHOICES}
              value={c.senseAt}
              onChange={(senseAt) => set({ senseAt })}
            />
          )}
          {tapped && <IgnitionLiveChoice c={c} set={set} />}
          {c.coach.chemistry === 'lfp' && (c.link === 'one-way' || c.link === 'bidirectional') && (
            <Says warns>
              LFP rests at a voltage where lead-acid looks like it is charging: a link by volts may stay closed until it
              is nearly flat.
            </Says>
          )}
        </Group>
      </div>
      <div className="grid gap-3">
        <Bank title="Coach bank" bank={c.coach} change={(coach) => set({ coach })} />
        <Bank title="Chassis bank" bank={c.chassis} change={(chassis) => set({ chassis })} />
        <Group title="House side">
          <Choose
            label="Charger"
            choices={CHARGER_CHOICES}
            value={c.charger}
            onChange={(charger) => set({ charger })}
          />
          <NumberField
            label="Charger output"
            unit="A"
            value={c.chargerAmps}
            min={2}
            max={300}
            onChange={(chargerAmps) => set({ chargerAmps })}
          />
          <Choose
            label="A second one in parallel"
            choices={NONE_OR('Stands by')}
            value={c.secondCharger ?? false}
            onChange={(secondCharger) => set({ secondCharger })}
          />
          <Choose
            label="Start battery kept up by"
            choices={MAINTAINER_CHOICES}
            value={c.maintainer ?? 'none'}
            onChange={(maintainer) => set({ maintainer })}
          />
          <Choose
            label="Disconnect"
            choices={DISCONNECT_CHOICES}
            value={c.disconnect}
            onChange={(disconnect) => set({ disconnect })}
          />
          <Choose
            label="Battery monitor"
            choices={NONE_OR('Shunt in the negative')}
            value={c.monitor ?? false}
            onChange={(monitor) => set({ monitor })}
          />
          <Choose label="Solar" choices={NONE_OR('On the roof')} value={c.solar} onChange={(solar) => set({ solar })} />
          <Choose
            label="Generator"
            choices={NONE_OR('On board')}
            value={c.generator}
            onChange={(generator) => set({ generator })}
          />
        </Group>
      </div>
    </>
  );
}
