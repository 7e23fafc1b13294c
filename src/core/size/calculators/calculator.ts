/** What a bench calculator is: inputs with units, an answer with its working. One calculator, one file. */
import type { Quantity } from '../../units/quantity';
import { gaugeFamily, gaugeName, GAUGES, gaugeShown } from '../../units/wire';

export interface NumberInput {
  kind: 'number';
  id: string;
  label: string;
  quantity: Quantity;
  /** Usual value and bounds, stored units. */
  value: number;
  min: number;
  max: number;
}

export interface ChoiceInput {
  kind: 'choice';
  id: string;
  label: string;
  choices: readonly { id: string; label: string }[];
  value: string;
}

export type Input = NumberInput | ChoiceInput;

export interface Figure {
  label: string;
  value: number;
  quantity: Quantity;
  /** How it stands, where it can be judged. */
  mark?: 'good' | 'watch' | 'bad';
}

export interface CalculatorAnswer {
  /** The figure one came for, first. */
  figures: Figure[];
  /** A sentence that judges it, or what follows from it. */
  says: string;
  mark?: Figure['mark'];
  /** Steps on the way, for the working. */
  working: Figure[];
}

export interface CalculatorInputs {
  number(id: string): number;
  choice(id: string): string;
}

export interface Calculator {
  id: string;
  title: string;
  /** What it answers, as a question. */
  asks: string;
  inputs: readonly Input[];
  /** The equation in symbols, and where it is from. */
  formula: string;
  source: string;
  caution?: string;
  answer(v: CalculatorInputs): CalculatorAnswer;
}

export const number = (
  id: string,
  label: string,
  quantity: Quantity,
  value: number,
  min: number,
  max: number,
): NumberInput => ({ kind: 'number', id, label, quantity, value, min, max });
export const choice = (id: string, label: string, choices: ChoiceInput['choices'], value: string): ChoiceInput => ({
  kind: 'choice',
  id,
  label,
  choices,
  value,
});
export const figure = (label: string, value: number, quantity: Quantity, mark?: Figure['mark']): Figure => ({
  label,
  value,
  quantity,
  ...(mark ? { mark } : {}),
});

/** Every gauge, in both worlds' words. */
export const gaugeChoices = GAUGES.map((g) => ({
  id: g,
  label: gaugeFamily(g) === 'mm2' ? gaugeName(g) : `${gaugeName(g)}, ${gaugeShown(g, 'mm2')}`,
}));

/** Values from what an address or a form holds, usual ones where it is silent or out of bounds. */
export function valuesOf(
  calculator: Calculator,
  given: Readonly<Record<string, string | undefined>>,
): CalculatorInputs {
  const input = (id: string): Input => {
    const found = calculator.inputs.find((i) => i.id === id);
    if (!found) throw new Error(`${calculator.id} has no input ${id}`);
    return found;
  };
  return {
    number(id) {
      const i = input(id) as NumberInput;
      const text = given[id];
      const x = text === undefined || text.trim() === '' ? NaN : Number(text);
      return Number.isFinite(x) && x >= i.min && x <= i.max ? x : i.value;
    },
    choice(id) {
      const i = input(id) as ChoiceInput;
      return i.choices.some((c) => c.id === given[id]) ? given[id]! : i.value;
    },
  };
}
