/** What a check of the finished rig is, and whether what was written down passes. */
export interface CheckValue {
  id: string;
  label: string;
  unit: 'A' | '°C' | 'times' | 'min';
  /** Most that passes; SI. */
  most?: number;
  /** Where the limit comes from. */
  source?: string;
}

export interface RigCheck {
  id: string;
  name: string;
  how: string;
  why: string;
  /** Operating state it is done in. */
  state: string;
  /** About how long it takes. */
  minutes: number;
  values: CheckValue[];
  /** Its values are written down again and again while it runs. */
  watch: boolean;
  /** Without it the rig is not proven; the others are advised. */
  required: boolean;
  caution?: string;
}

/** Whether what was written passes: undefined where a limit has no value yet. */
export function passes(check: RigCheck, values: Readonly<Record<string, number>>): boolean | undefined {
  const limited = check.values.filter((v) => v.most !== undefined);
  if (limited.some((v) => values[v.id] === undefined)) return undefined;
  return limited.every((v) => values[v.id]! <= v.most!);
}
