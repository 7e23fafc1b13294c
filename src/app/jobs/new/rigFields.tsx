'use client';
/** Fields that every form of a rig is made of, in the shop's words and lengths. */
import { createContext, useContext, type ComponentProps, type ReactNode } from 'react';
import { CHEMISTRY_CHOICES, LAYOUT_CHOICES } from '@/core/rig/archetypes/choices';
import type { BankChoice } from '@/core/rig/archetypes/choicesSchema';
import { lengthShown, lengthStored, type LengthUnit } from '@/core/units/preferences';
import { Choose as PlainChoose, NumberField as PlainNumberField } from '@/ui/fields';

export const NONE_OR = (yes: string) =>
  [
    { id: false, label: 'None' },
    { id: true, label: yes },
  ] as const;

/** How the shop says things and measures lengths. */
export const Spoken = createContext<{ words(text: string): string; length: LengthUnit }>({
  words: (text) => text,
  length: 'ft',
});

export function Choose<T extends string | number | boolean>(props: ComponentProps<typeof PlainChoose<T>>) {
  const { words } = useContext(Spoken);
  const choices = props.choices.map((c) => ({ ...c, label: words(c.label) }));
  return <PlainChoose<T> {...props} label={words(props.label)} choices={choices} />;
}

export function NumberField(props: ComponentProps<typeof PlainNumberField>) {
  const { words } = useContext(Spoken);
  return <PlainNumberField {...props} label={words(props.label)} />;
}

/** A sentence below a choice. */
export function Says({ warns, children }: { warns?: boolean; children: string }) {
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

export function LengthField({ label, metres, between, put }: LengthFieldProps) {
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
      <h2 className="font-cond font-bold text-figure leading-none">{words(title)}</h2>
      {children}
    </section>
  );
}

/** Lithium blocks come in the bank’s own volts: none is put in series with another. Common practice. */
const layoutsOf = (chemistry: BankChoice['chemistry']) =>
  LAYOUT_CHOICES.filter((l) => chemistry !== 'lfp' || l.id === 'single' || l.id === 'parallel');
const layoutFor = (chemistry: BankChoice['chemistry'], layout: BankChoice['layout']): BankChoice['layout'] =>
  layoutsOf(chemistry).some((l) => l.id === layout) ? layout : 'parallel';

export function Bank({ title, bank, change }: { title: string; bank: BankChoice; change(bank: BankChoice): void }) {
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
      {bank.chemistry === 'lfp' && (
        <Choose
          label="Battery heater"
          choices={NONE_OR('Built in')}
          value={bank.heater ?? false}
          onChange={(heater) => change({ ...bank, heater })}
        />
      )}
    </Group>
  );
}
