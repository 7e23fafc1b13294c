'use client';
/** The choices a bench is drawn from. */
import { BENCH_UNITS } from '@/core/rig/archetypes/benchChoices';
import type { BenchChoices } from '@/core/rig/archetypes/benchSchema';
import { Bank, Choose, Group, NumberField, Says } from './rigFields';

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
