/** Hours of a scenario as a technician says them. */

/** "day 2, 10:20"; days alone once a scenario lasts weeks. */
export function clockOf(hours: number, startHour: number, long: boolean): string {
  const at = startHour + hours;
  const day = Math.floor(at / 24) + 1;
  if (long) return `day ${day}`;
  const minutes = Math.round((at - Math.floor(at / 24) * 24) * 60);
  const h = Math.floor(minutes / 60) % 24;
  return `day ${day}, ${String(h).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

/** For an axis: "10:00", or "day 12". */
export function tickOf(hours: number, startHour: number, long: boolean): string {
  const at = startHour + hours;
  if (long) return `day ${Math.floor(at / 24) + 1}`;
  const minutes = Math.round(at * 60);
  const h = Math.floor(minutes / 60) % 24;
  return minutes % 1440 === 0
    ? `day ${minutes / 1440 + 1}`
    : `${String(h).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

/** A scenario of more than ten days is read in days. */
export const isLong = (hours: number): boolean => hours > 240;

export const inHours = (hours: number): string =>
  hours >= 1000
    ? `${(hours / 730).toFixed(1)} months`
    : hours >= 72
      ? `${Number((hours / 24).toFixed(1))} days`
      : hours >= 1
        ? `${Number(hours.toFixed(1))} h`
        : `${Math.round(hours * 60)} min`;
