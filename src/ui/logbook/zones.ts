/** Time zones by name. */

/** The zone of this device. */
export const ZONE = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';

/**
 * The zone somebody means: its name in any case, with blanks for the strokes below, or a part of a name that only one
 * zone has. Undefined where there is none, or more than one.
 */
export function zoneOf(text: string, all: readonly string[] = ['UTC', ...Intl.supportedValuesOf('timeZone')]) {
  const plain = (s: string) =>
    s
      .trim()
      .toLowerCase()
      .replace(/[\s_]+/g, '_');
  const wanted = plain(text);
  if (wanted === '') return undefined;
  const whole = all.find((z) => plain(z) === wanted);
  if (whole !== undefined) return whole;
  const holding = all.filter((z) => plain(z).includes(wanted));
  return holding.length === 1 ? holding[0] : undefined;
}
