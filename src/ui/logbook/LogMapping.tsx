'use client';
/** What the columns of a recorder's table are, looked over before it is read. */
import type { ColumnMap } from '../../core/recorderLog/readCsv';
import type { LogFace } from '../../core/recorderLog/readLog';
import { LOG_ROLES, type LogRole } from '../../core/recorderLog/series';
import { ZoneField } from './ZoneField';

const FORMATS: readonly { id: ColumnMap['format']; label: string }[] = [
  { id: 'iso', label: 'Year first' },
  { id: 'day-first', label: 'Day first' },
  { id: 'month-first', label: 'Month first' },
  { id: 'seconds', label: 'Seconds since 1970' },
  { id: 'milliseconds', label: 'Milliseconds since 1970' },
  { id: 'elapsed', label: 'Seconds since it began' },
];

export function LogMapping({
  face,
  map,
  change,
  read,
}: {
  face: LogFace;
  map: ColumnMap | undefined;
  change(map: ColumnMap): void;
  read(): void;
}) {
  if (!map)
    return (
      <>
        <p>
          A log of the CAN bus: frames of DC sources are read by their numbers, 1 the coach bank, 2 the start battery.
        </p>
        <button type="button" className="btn" onClick={read}>
          <span>Read it</span>
        </button>
      </>
    );
  const header = face.rows[map.header] ?? [];
  const sample = face.rows[map.header + 1] ?? [];
  const roleOf = (i: number): string =>
    i === map.time ? 'time' : i === map.clock ? 'clock' : (map.columns.find((c) => c.index === i)?.role ?? '');
  const set = (index: number, role: string) => {
    const { clock: _, ...bare } = map;
    const rest = map.columns.filter((c) => c.index !== index && c.role !== role);
    const base = map.clock === index ? bare : map;
    if (role === 'time') change({ ...base, time: index, columns: rest });
    else if (role === 'clock') change({ ...map, clock: index, columns: rest });
    else
      change({
        ...base,
        columns:
          role === ''
            ? rest
            : [
                ...rest,
                {
                  index,
                  role: role as LogRole,
                  name: header[index] ?? `Column ${index + 1}`,
                  times: /\bm[VA]\b|\(m[VA]\)/.test(header[index] ?? '') ? 0.001 : 1,
                },
              ],
      });
  };
  return (
    <div>
      <h3 className="font-cond font-bold text-head">What the columns are</h3>
      <table className="logtable w-full text-note">
        <tbody>
          {header.map((h, i) => (
            <tr key={i}>
              <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle">
                <b>{h.trim() || `Column ${i + 1}`}</b>
              </td>
              <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle">{sample[i]}</td>
              <td className="px-1.5 py-1 border-b-1 border-rule leading-tight align-middle">
                <select
                  className="select min-h-11"
                  aria-label={`Column ${h.trim() || i + 1} is`}
                  value={roleOf(i)}
                  onChange={(e) => set(i, e.target.value)}
                >
                  <option value="">not used</option>
                  <option value="time">Time</option>
                  <option value="clock">Time of day, beside the date</option>
                  {LOG_ROLES.map((r) => (
                    <option key={r.id} value={r.id}>
                      {r.label}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="chk-do">
        <label className="field w-32">
          <span>Dates are</span>
          <select
            className="select"
            value={map.format}
            onChange={(e) => change({ ...map, format: e.target.value as ColumnMap['format'] })}
          >
            {FORMATS.map((f) => (
              <option key={f.id} value={f.id}>
                {f.label}
              </option>
            ))}
          </select>
        </label>
        <label className="field w-32">
          <span>Decimals with</span>
          <select
            className="select"
            value={map.decimal}
            onChange={(e) => change({ ...map, decimal: e.target.value as '.' | ',' })}
          >
            <option value=".">a point</option>
            <option value=",">a comma</option>
          </select>
        </label>
        <label className="field wide flex-1 w-32 min-w-37.5">
          <span>Clock of the recorder</span>
          <ZoneField zone={map.zone} put={(zone) => change({ ...map, zone })} />
        </label>
        <button type="button" className="btn btn-neutral" disabled={map.columns.length === 0} onClick={read}>
          <span>Read it</span>
        </button>
      </div>
      {map.columns.length === 0 && <p className="over">Say of at least one column what it is.</p>}
    </div>
  );
}
