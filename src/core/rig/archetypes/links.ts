/** What a way of linking two batteries is, before any archetype draws it. */

/** The trade's schools of what a link should be. */
export type LinkSchool = 'direct' | 'sensed' | 'regulated' | 'small' | 'thin';

export interface LinkRow {
  id: string;
  label: string;
  /** What it is, for who chooses. */
  says: string;
  /** The school it stands for among the options. */
  school: LinkSchool;
  /**
   * A of the chargers that are worth looking at, 12 V amps of the charger's output; by rig family where a family wants
   * others. Absent where no charger belongs to it.
   */
  amps?: { usual: readonly number[] } & Readonly<Record<string, readonly number[]>>;
}
