'use client';
/** What a rig is made of, as a form: the motorhome's choices, and two coupled vehicles'. */
import { lengthShown, lengthStored, type LengthUnit } from '@/core/units/preferences';
import { createContext, useContext, type ComponentProps, type ReactNode } from 'react';
import {
  CHARGER_CHOICES,
  CHEMISTRY_CHOICES,
  DISCONNECT_CHOICES,
  ENGINE_CHOICES,
  LAYOUT_CHOICES,
  LINK_CHOICES,
  MAINTAINER_CHOICES,
  SENSE_CHOICES,
} from '@/core/rig/archetypes/choices';
import type { BankChoice, MotorhomeChoices } from '@/core/rig/archetypes/choicesSchema';
import { BENCH_UNITS } from '@/core/rig/archetypes/benchChoices';
import type { BenchChoices } from '@/core/rig/archetypes/benchSchema';
import { linksFor, USUAL_HOUSE, USUAL_VAN_AMPS } from '@/core/rig/archetypes/coupledChoices';
import type { CoupledChoices } from '@/core/rig/archetypes/coupledSchema';
import { ENABLE_SCHOOLS } from '@/core/parts/enableSchools';
import { Choose as PlainChoose, NumberField as PlainNumberField } from '@/ui/fields';

const NONE_OR = (yes: string) =>
  [
    { id: false, label: 'None' },
    { id: true, label: yes },
  ] as const;

/** How the shop says things and measures lengths. */
export const Spoken = createContext<{ words(text: string): string; length: LengthUnit }>({
  words: (text) => text,
  length: 'ft',
});

function Choose<T extends string | number | boolean>(props: ComponentProps<typeof PlainChoose<T>>) {
  const { words } = useContext(Spoken);
  const choices = props.choices.map((c) => ({ ...c, label: words(c.label) }));
  return <PlainChoose<T> {...props} label={words(props.label)} choices={choices} />;
}

function NumberField(props: ComponentProps<typeof PlainNumberField>) {
  const { words } = useContext(Spoken);
  return <PlainNumberField {...props} label={words(props.label)} />;
}

/** A sentence below a choice. */
function Says({ warns, children }: { warns?: boolean; children: string }) {
  const { words } = useContext(Spoken);
  return <p className={warns ? 'warn-line' : 'quiet'}>{words(children)}</p>;
}

interface LengthFieldProps {
  label: string;
  metres: number;
  /** m from and to. */
  between: readonly [number, number];
  put(metres: number): void;
}

function LengthField({ label, metres, between, put }: LengthFieldProps) {
  const { length } = useContext(Spoken);
  const shown = (m: number, round: (x: number) => number) =>
    length === 'ft' ? round(lengthShown(m, length)) : round(m * 10) / 10;
  return (
    <NumberField
      key={length}
      label={label}
      unit={length}
      value={shown(metres, Math.round)}
      min={shown(between[0], Math.ceil)}
      max={shown(between[1], Math.floor)}
      onChange={(x) => put(lengthStored(x, length))}
    />
  );
}

export function Group({ title, children }: { title: string; children: ReactNode }) {
  const { words } = useContext(Spoken);
  return (
    <section className="grp-box" aria-label={words(title)}>
      <h2>{words(title)}</h2>
      {children}
    </section>
  );
}

/** Lithium blocks come in the bank’s own volts: none is put in series with another. Common practice. */
const layoutsOf = (chemistry: BankChoice['chemistry']) =>
  LAYOUT_CHOICES.filter((l) => chemistry !== 'lfp' || l.id === 'single' || l.id === 'parallel');
const layoutFor = (chemistry: BankChoice['chemistry'], layout: BankChoice['layout']): BankChoice['layout'] =>
  layoutsOf(chemistry).some((l) => l.id === layout) ? layout : 'parallel';

function Bank({ title, bank, change }: { title: string; bank: BankChoice; change(bank: BankChoice): void }) {
  return (
    <Group title={title}>
      <Choose
        label="Chemistry"
        choices={CHEMISTRY_CHOICES}
        value={bank.chemistry}
        onChange={(chemistry) => change({ ...bank, chemistry, layout: layoutFor(chemistry, bank.layout) })}
      />
      <Choose
        label="Blocks"
        choices={layoutsOf(bank.chemistry)}
        value={bank.layout}
        onChange={(layout) => change({ ...bank, layout })}
      />
      <NumberField
        label="Whole bank"
        unit="Ah"
        value={bank.capacity}
        min={10}
        max={3000}
        onChange={(capacity) => change({ ...bank, capacity })}
      />
    </Group>
  );
}

/** Ways of enabling a charger that a motorhome offers: nothing is behind a plug there. */
const MOTORHOME_ENABLES = (['ignition', 'volts', 'manual', 'always'] as const).map((id) => ({
  id,
  label: ENABLE_SCHOOLS.find((s) => s.id === id)!.label,
}));

export function MotorhomeForm({ c, set }: { c: MotorhomeChoices; set(part: Partial<MotorhomeChoices>): void }) {
  const alone = c.link === 'dcdc' || c.link === 'dcdc-dual';
  const solenoid = c.link !== 'diode' && !alone;
  const senses = c.link === 'bidirectional' || c.link === 'timed-window';
  return (
    <>
      <div>
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
          {c.coach.chemistry === 'lfp' && (c.link === 'one-way' || c.link === 'bidirectional') && (
            <Says warns>
              LFP rests at a voltage where lead-acid looks like it is charging: a link by volts may stay closed until it
              is nearly flat.
            </Says>
          )}
        </Group>
      </div>
      <div>
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

export function BenchForm({ c, set }: { c: BenchChoices; set(part: Partial<BenchChoices>): void }) {
  return (
    <>
      <div>
        <Group title="On clips">
          <Choose label="Unit" choices={BENCH_UNITS} value={c.unit} onChange={(unit) => set({ unit })} />
          <Says>{`${BENCH_UNITS.find((u) => u.id === c.unit)!.says}.`}</Says>
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
        </Group>
        <Group title="Shop charger">
          <Choose
            label="Clipped to"
            choices={
              [
                { id: 'first', label: 'Battery 1, as an engine would' },
                { id: 'second', label: 'Battery 2, as shore power would' },
              ] as const
            }
            value={c.chargerAt}
            onChange={(chargerAt) => set({ chargerAt })}
          />
          <NumberField
            label="Charger output"
            unit="A"
            value={c.chargerAmps}
            min={1}
            max={100}
            onChange={(chargerAmps) => set({ chargerAmps })}
          />
        </Group>
      </div>
      <div>
        <Bank title="Battery 1" bank={c.first} change={(first) => set({ first })} />
        <Bank title="Battery 2" bank={c.second} change={(second) => set({ second })} />
      </div>
    </>
  );
}

interface CoupledFormProps {
  c: CoupledChoices;
  /** W of a fridge's element where the shop works. */
  usualFridge: number;
  set(part: Partial<CoupledChoices>): void;
}

export function CoupledForm({ c, usualFridge, set }: CoupledFormProps) {
  const car = c.family === 'towed-car';
  const links = linksFor(c.family);
  const charger = c.link.startsWith('dcdc') || c.link === 'chained';
  return (
    <>
      <div>
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
        </Group>
        <Bank title="Start battery" bank={c.start} change={(start) => set({ start })} />
        {car && c.source === 'house' && (
          <Bank title="House bank" bank={c.accessory ?? USUAL_HOUSE} change={(accessory) => set({ accessory })} />
        )}
      </div>
      <div>
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
