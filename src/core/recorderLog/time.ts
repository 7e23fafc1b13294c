/** Times as recorders write them, to seconds since 1970 UTC. No clock is asked: a time without a zone needs one given. */

export type TimeFormat = 'iso' | 'day-first' | 'month-first' | 'seconds' | 'milliseconds' | 'elapsed';

/** Days since 1970-01-01 of a date of the Gregorian calendar. Source: the usual count of leap years by era. */
export function daysFromCivil(year: number, month: number, day: number): number {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yearOfEra = y - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  return (
    era * 146_097 + yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear - 719_468
  );
}

const DAY_PART = /(\d{1,4})[-/.](\d{1,2})[-/.](\d{1,4})/;
const CLOCK_PART = /(?:[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,9}))?)?\s*([AaPp][Mm])?)?/;
const ZONE_PART = /(Z|[+-]\d{2}:?\d{2})?/;
const DATE = new RegExp(`^\\s*${DAY_PART.source}${CLOCK_PART.source}\\s*${ZONE_PART.source}\\s*$`);
/** No date is longer; in what is, the pattern would look for one in every way there is. */
const LONGEST = 64;
const daysOfMonth = (year: number, month: number): number =>
  (month === 12 ? daysFromCivil(year + 1, 1, 1) : daysFromCivil(year, month + 1, 1)) - daysFromCivil(year, month, 1);

/** Seconds since 1970 of the midnight a date begins with; NaN where the calendar has no such day. */
function dateSeconds(m: RegExpExecArray, format: TimeFormat): number {
  const [a, b, c] = [Number(m[1]), Number(m[2]), Number(m[3])];
  const yearFirst = m[1]!.length === 4;
  const [year, month, day] = yearFirst ? [a, b, c] : format === 'month-first' ? [c, a, b] : [c, b, a];
  const full = year < 100 ? year + 2000 : year;
  if (month < 1 || month > 12 || day < 1 || day > daysOfMonth(full, month)) return NaN;
  return daysFromCivil(full, month, day) * 86_400;
}

/** Seconds since midnight; NaN where no clock shows that. */
function clockSeconds(m: RegExpExecArray): number {
  let hour = Number(m[4] ?? 0);
  if (m[8]) hour = (hour % 12) + (/p/i.test(m[8]) ? 12 : 0);
  const [minute, second] = [Number(m[5] ?? 0), Number(m[6] ?? 0)];
  const whole = hour * 3600 + minute * 60 + second;
  if (whole > 86_400 || minute > 59 || second > 60) return NaN;
  return whole + (m[7] ? Number(`0.${m[7]}`) : 0);
}

/** Seconds a zone is ahead of UTC. @param zone `Z` or ±hh:mm */
function zoneSeconds(zone: string): number {
  if (zone === 'Z') return 0;
  return (zone.startsWith('-') ? -60 : 60) * (Number(zone.slice(1, 3)) * 60 + Number(zone.slice(-2)));
}

/** Seconds since 1970 of what stands there, and whether it says its own zone; NaN where it is no time. */
export function readTime(text: string, format: TimeFormat): { seconds: number; zoned: boolean } {
  if (format === 'seconds' || format === 'milliseconds' || format === 'elapsed') {
    const n = text.trim() === '' ? NaN : Number(text.trim().replace(',', '.'));
    return { seconds: format === 'milliseconds' ? n / 1000 : n, zoned: true };
  }
  const m = text.length > LONGEST ? null : DATE.exec(text);
  const seconds = m ? dateSeconds(m, format) + clockSeconds(m) - zoneSeconds(m[9] ?? 'Z') : NaN;
  return { seconds, zoned: Number.isFinite(seconds) && m?.[9] !== undefined };
}

/** Minutes a zone is ahead of UTC at an instant; `zone` is a name of the IANA list. Throws on one that is not. */
export function zoneOffsets(zone: string): (utcSeconds: number) => number {
  const clock = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
  });
  // An offset holds for hours: asked once a quarter of an hour of log.
  let asked = NaN;
  let answer = 0;
  return (utc) => {
    const quarter = Math.floor(utc / 900);
    if (quarter === asked) return answer;
    const p = Object.fromEntries(clock.formatToParts(quarter * 900_000).map((x) => [x.type, Number(x.value)]));
    const local =
      daysFromCivil(p['year']!, p['month']!, p['day']!) * 86_400 + p['hour']! * 3600 + p['minute']! * 60 + p['second']!;
    asked = quarter;
    answer = Math.round((local - quarter * 900) / 60);
    return answer;
  };
}

/** A local wall time in a zone to UTC. In the hour that comes twice the first is taken. */
export function toUtc(localSeconds: number, offsetAt: (utcSeconds: number) => number): number {
  const before = localSeconds - offsetAt(localSeconds - 86_400) * 60;
  const guess = localSeconds - offsetAt(before) * 60;
  return offsetAt(guess) === offsetAt(before) ? guess : localSeconds - offsetAt(guess) * 60;
}
