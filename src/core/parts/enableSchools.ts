/** How a charger or relay is told to work: the schools, as data. All common practice. */
export interface EnableSchool {
  id: 'ignition' | 'volts' | 'manual' | 'marker-lights' | 'relay' | 'always';
  label: string;
  how: string;
  speaksFor: string;
  speaksAgainst: string;
  /** What it asks of the unit: a live enable wire, or its own look at the input's volts. */
  by: 'wire' | 'volts';
  rating: 'good' | 'fair' | 'poor';
}

export const ENABLE_SCHOOLS: readonly EnableSchool[] = [
  {
    id: 'ignition',
    label: 'Ignition lead',
    how: 'tap a circuit that is live only in run',
    speaksFor: 'certain, and works with a smart alternator',
    speaksAgainst: 'one more wire, maybe through the cabin',
    by: 'wire',
    rating: 'good',
  },
  {
    id: 'volts',
    label: 'Voltage sensing',
    how: 'starts above its on volts, stops below its off volts',
    speaksFor: 'no wire',
    speaksAgainst: 'fooled by smart alternators, cable drop, solar or another charger',
    by: 'volts',
    rating: 'fair',
  },
  {
    id: 'manual',
    label: 'Hand switch',
    how: 'a switch in the enable lead',
    speaksFor: 'the driver sheds load on a grade',
    speaksAgainst: 'forgotten, on or off',
    by: 'wire',
    rating: 'fair',
  },
  {
    id: 'marker-lights',
    label: 'Marker lights',
    how: 'enabled from the tow connector’s lamp pin',
    speaksFor: 'no new wire',
    speaksAgainst: 'works only with lights on, drains if they are left on',
    by: 'wire',
    rating: 'poor',
  },
  {
    id: 'relay',
    label: 'Voltage cut-off relay',
    how: 'a relay behind closes while the line is charged, and feeds the enable',
    speaksFor: 'no wire to the cab',
    speaksAgainst: 'a thin line sags under load, and the relay sees it',
    by: 'wire',
    rating: 'fair',
  },
  {
    id: 'always',
    label: 'Always on',
    how: 'enable tied to the input',
    speaksFor: 'simplest',
    speaksAgainst: 'drains the start battery whenever it is coupled; only with a low-voltage lockout',
    by: 'wire',
    rating: 'poor',
  },
];
