/** What a practice job tells somebody who has never seen the program: the next press, and a word at its first meeting. */
import { showText } from '../../core/units/format';
import type { NextAction } from './nextAction';

/** Words of the trade this program leans on, each in a sentence. */
export const TERMS = {
  state: 'State: what the rig is doing. A reading counts for that state only.',
  probe: 'Probe: a numbered point; P14 is the same on strip, sheet and record.',
  band: 'Band: what a healthy rig reads there. Press one for its working.',
  epoch: 'Epoch: the rig was changed, so readings from before no longer speak of it.',
} as const;
export type Term = keyof typeof TERMS;

/** What the made-up rig answers to what is asked next. */
export interface Answered {
  meter?: { value: number; unit: 'V' | 'A' };
  /** Label of the answer to a question. */
  answer?: string;
}

/** What to press and type now. Undefined while there is nothing to say yet. */
export function guideSays(next: NextAction, { meter, answer }: Answered): string | undefined {
  switch (next.kind) {
    case 'change-state':
      return 'First change the state: press the highlighted button, then “It is now”.';
    case 'measure':
      return meter && `Your meter shows ${showText(meter.value, meter.unit)}: type it, press Enter or Keep.`;
    case 'ask':
      return answer === undefined ? undefined : `You find: ${answer}. Press the highlighted button and answer that.`;
    case 'declare':
      return 'Enough is known: press Declare. It is your judgement; the figure is how sure the program is.';
    case 'approve':
      return 'The customer agrees: write a sum and a name, and press “Approved”. In practice any will do.';
    case 'repair':
      return 'Put it right in your mind: write in a line what was done, and press “Repair done: prove it”.';
    case 'check':
      return 'A check that is more than one reading: write 0 where it asks for a figure, then press Pass.';
    case 'finish':
      return 'Everything is proved: press Finish and sign. That is a whole job.';
    case 'report':
      return 'Done. The page for the customer is one press away; practice pages say that no vehicle is meant.';
    case 'reopen-fault':
      return 'The proof did not hold: what was declared was not it. Go on, the readings since then are the evidence.';
    case 'look':
      return 'No reading tells the leading suspects apart: look under Fault at what to try.';
    case 'own':
    case 'wait':
      return undefined;
  }
}

/** Which word is met now for the first time. */
export function termMet({
  next,
  taken,
  bands,
  made,
}: {
  next: NextAction['kind'];
  taken: number;
  bands: boolean;
  made: boolean;
}): Term | undefined {
  if (made) return taken === 0 ? 'epoch' : undefined;
  if (next === 'change-state' && taken === 0) return 'state';
  if (next !== 'measure') return undefined;
  return taken === 0 ? 'probe' : taken <= 2 && bands ? 'band' : undefined;
}
