'use client';
/** One figure of a part: value in the unit a technician reads, how far it may be off, and how it is known. */
import { useId } from 'react';
import { displayUnit } from '../../core/units/display';
import type { Parameter, ParameterSpec } from '../../core/units/parameter';
import { Choose, NumberField } from '../fields';

const KNOWN = [
  { id: 'measured', label: 'measured' },
  { id: 'nameplate', label: 'label' },
  { id: 'assumed', label: 'assumed' },
] as const;

/** A figure that was measured is no longer off by what one assumed: the usual meter's share instead. */
const MEASURED_SPREAD = 0.03;

export function ParameterRow({
  spec,
  parameter,
  change,
}: {
  spec: ParameterSpec;
  parameter: Parameter;
  change(p: Parameter): void;
}) {
  const name = useId();
  const shown = displayUnit(spec);
  const { value, spread, provenance } = parameter;
  const ratio = spec.scale === 'ratio';
  const bare = { value, spread, provenance };
  return (
    <div
      className="prow grid items-center gap-2 pb-1.5 border-b-1 border-rule-2 text-note"
      role="group"
      aria-labelledby={name}
    >
      <span id={name}>{spec.label}</span>
      <NumberField
        label=""
        unit={shown.unit}
        value={value * shown.times}
        min={spec.min * shown.times}
        max={spec.max * shown.times}
        onChange={(v) => change({ ...bare, value: v / shown.times })}
      />
      <NumberField
        label=""
        unit={ratio ? '±%' : `±${shown.unit}`}
        value={ratio ? spread * 100 : spread * shown.times}
        min={0}
        max={ratio ? 300 : (spec.max - spec.min) * shown.times}
        onChange={(v) => change({ ...bare, spread: ratio ? v / 100 : v / shown.times })}
      />
      <div className="know max-narrow:col-span-full">
        <Choose
          label=""
          choices={KNOWN}
          value={provenance}
          onChange={(p) =>
            change({
              ...bare,
              provenance: p,
              ...(p === 'measured' && ratio ? { spread: Math.min(spread, MEASURED_SPREAD) } : {}),
            })
          }
        />
      </div>
    </div>
  );
}
