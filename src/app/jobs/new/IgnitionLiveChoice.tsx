'use client';
/** When the ignition wire that tells the link to work is live. */
import type { MotorhomeChoices } from '@/core/rig/archetypes/choicesSchema';
import { IGNITION_LIVE } from '@/core/parts/ignitionLive';
import { Choose, Says } from './rigFields';

interface IgnitionLiveChoiceProps {
  c: Pick<MotorhomeChoices, 'ignitionLive'>;
  set(part: Pick<MotorhomeChoices, 'ignitionLive'>): void;
}

export function IgnitionLiveChoice({ c, set }: IgnitionLiveChoiceProps) {
  return (
    <>
      <Choose
        label="Ignition wire is live"
        choices={IGNITION_LIVE}
        value={c.ignitionLive ?? 'run'}
        onChange={(ignitionLive) => set({ ignitionLive })}
      />
      {c.ignitionLive === 'engine' && (
        <Says>From the charge-lamp line, an oil-pressure switch or a data-bus module.</Says>
      )}
    </>
  );
}
