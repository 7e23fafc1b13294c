/** How compared candidates are told apart without colour: a letter and a dash pattern each. */
export const LETTERS = ['A', 'B', 'C', 'D', 'E', 'F'] as const;

/** Stroke dashes, px; the first is solid. */
export const DASHES: readonly (readonly number[])[] = [[], [10, 5], [2, 4], [10, 4, 2, 4], [16, 5], [5, 5]];
