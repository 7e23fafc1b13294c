/** The middle 95 % of a list of samples. */
export interface Range {
  lo: number;
  hi: number;
}

export const middleOf = (values: readonly number[]): Range => {
  const sorted = [...values].sort((a, b) => a - b);
  return { lo: sorted[Math.floor(sorted.length * 0.025)]!, hi: sorted[Math.ceil(sorted.length * 0.975) - 1]! };
};
