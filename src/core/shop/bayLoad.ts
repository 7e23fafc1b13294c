/** How full the bays are: minutes booked of minutes open, and what stands in each other's way. */

export interface BaySpan {
  id: string;
  bay: string;
  /** Minutes since the day began, by the shop's clock. */
  from: number;
  minutes: number;
}

export interface BayDay {
  bay: string;
  booked: number;
  open: number;
  /** Minutes beyond what the day has. */
  over: number;
  /** Pairs that stand in the bay at the same time. */
  clashes: [string, string][];
  /** Bookings that begin before the shop opens or end after it closes. */
  outside: string[];
}

/** One day of one bay. @param hours when the shop is open, h; a day off has none. */
export function bayDay(
  bay: string,
  spans: readonly BaySpan[],
  hours: { from: number; to: number } | undefined,
): BayDay {
  const here = spans.filter((s) => s.bay === bay).sort((a, b) => a.from - b.from);
  const booked = here.reduce((sum, s) => sum + s.minutes, 0);
  const open = hours ? Math.max(0, (hours.to - hours.from) * 60) : 0;
  const clashes: [string, string][] = [];
  for (let i = 0; i < here.length; i++)
    for (let j = i + 1; j < here.length && here[j]!.from < here[i]!.from + here[i]!.minutes; j++)
      clashes.push([here[i]!.id, here[j]!.id]);
  return {
    bay,
    booked,
    open,
    over: Math.max(0, booked - open),
    clashes,
    outside: here
      .filter((s) => !hours || s.from < hours.from * 60 || s.from + s.minutes > hours.to * 60)
      .map((s) => s.id),
  };
}
