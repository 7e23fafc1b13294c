/** "1 photo", "3 photos": a count with its English noun, whose plural takes an s. */
export const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;
