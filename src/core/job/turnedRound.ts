/** The payload of the command that takes back one which says what was and what shall be. */
export function turnedRound<P extends { was?: unknown; set?: unknown }>({ was, set, ...rest }: P): P {
  return { ...rest, ...(set === undefined ? {} : { was: set }), ...(was === undefined ? {} : { set: was }) } as P;
}
