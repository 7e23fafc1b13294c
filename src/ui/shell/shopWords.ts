/** What the core answers, and the rig, in the shop's vocabulary: put in where it is shown, all in one place. */
import { namesGiven, rigInWords } from '../../core/rig/inWords';
import { operatingState, type OperatingState } from '../../core/operate/states';
import type { Rig } from '../../core/rig/schema';
import { allInWords, inWords, type Vocabulary } from '../../core/units/vocabulary';
import type { NextAction } from './nextAction';

/** The words of a shop for what is said of one rig; names a person gave stay. */
export interface ShopWords {
  rig: Rig;
  /** A text of our own. */
  text(text: string): string;
  /** An operating state by its id. */
  stateOf(id: string): OperatingState;
  /** Everything an answer of the core says. */
  all<T>(answer: T): T;
  /** The action's words; what it points at stays. */
  action(next: NextAction): NextAction;
}

export function shopWords(vocabulary: Vocabulary, doc: Rig): ShopWords {
  const own = namesGiven(doc);
  const text = (said: string) => inWords(vocabulary, said, own);
  return {
    rig: rigInWords(vocabulary, doc),
    text,
    stateOf: (id) => {
      const state = operatingState(id);
      return { ...state, label: text(state.label), how: text(state.how), cautions: state.cautions.map(text) };
    },
    all: (answer) => allInWords(vocabulary, answer, own),
    action: (next) =>
      next.kind === 'change-state'
        ? { ...next, words: text(next.words), then: text(next.then) }
        : { ...next, words: text(next.words) },
  };
}
