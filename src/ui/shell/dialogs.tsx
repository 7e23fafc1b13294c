'use client';
/** Smaller sheets: where the black lead is, how a band came about, the keys. */
import { clsx } from 'clsx';
import { MODEL_ERROR } from '../../core/probe/modelError';
import type { Measurement } from '../../core/probe/measurement';
import { showBand, showQuantity, showSpread, showText } from '../../core/units/format';
import { keySheet } from './hotkeys';
import { useJobFile, useEntries, useMeasuring } from './jobPage';
import { useWorked } from '../useWorked';
import { usePointWords } from '../readings/Leads';
import { Sheet } from '../Dialog';

export function LeadDialog({ onClose }: { onClose(): void }) {
  const { job, rig } = useJobFile();
  const { send } = useEntries();
  const words = usePointWords();
  const points = [
    ...rig.grounds.flatMap((g) => g.points.map((p) => `${g.id}.${p.id}`)),
    ...rig.probes.filter((p) => p.key.endsWith('.minus')).map((p) => p.key),
  ];
  return (
    <Sheet title="Where is the black lead?" onClose={onClose}>
      <p className="text-note leading-tight">
        Every volt reading is kept with its black-lead point. A moved lead starts a new block of readings, with bands of
        its own.
      </p>
      <div className="states grid gap-1.75">
        {points.map((key) => (
          <button
            key={key}
            type="button"
            className={clsx(
              'flex justify-between items-center gap-2',
              'min-h-13.5 px-3 py-1 border border-ink rounded bg-card',
              'text-left',
              'is-on:bg-ink is-on:text-paper',
              `${key === job.blackLead ? ' on' : ''}`,
            )}
            onClick={() => {
              if (key !== job.blackLead) send('lead.move', { point: key });
              onClose();
            }}
          >
            <b className="block font-cond text-head leading-close">{words(key)}</b>
            <span className="font-cond font-medium text-plain text-right whitespace-nowrap">
              {key === job.blackLead ? 'now' : ''}
            </span>
          </button>
        ))}
      </div>
    </Sheet>
  );
}

export function BandDialog({
  state,
  measurement,
  onClose,
}: {
  state: string;
  measurement: Measurement;
  onClose(): void;
}) {
  const { described, stateOf, words } = useJobFile();
  const { askWorking } = useMeasuring();
  const { data: working, error } = useWorked('band', [described, state, measurement.id], () =>
    askWorking(state, measurement).then((w) => w ?? Promise.reject(new Error('no band'))),
  );
  const failed = error !== null;
  const b = working?.band;
  return (
    <Sheet title={`Why ${measurement.label} should read that`} onClose={onClose}>
      {failed && <p role="alert">The working could not be computed. Close this and try again.</p>}
      {!working && !failed && <p className="waiting py-2 text-note text-ink-2">Working it out …</p>}
      {working && b && (
        <>
          <p className="text-note leading-tight">
            {words(measurement.name)}, {stateOf(state).label.toLowerCase()}: a healthy rig reads{' '}
            <b>{showBand(b.lo, b.hi, b.unit)}</b>. With every assumption as stated, {showText(b.nominal, b.unit)}.
          </p>
          <p>
            The whole circuit is solved {working.samples} times with every uncertain number drawn from its spread, taken{' '}
            {MODEL_ERROR.spreadFactor} times wider than stated. The band holds the middle 95 %, widened by the meter (±
            {showText(2 * working.meter, b.unit)}) and by what the model itself may be off by (±
            {showText(2 * working.model, b.unit)}).
          </p>
          <table className="table work grid-cols-slip min-w-0 min-h-0 max-narrow:grid-cols-1">
            <thead>
              <tr>
                <th className="px-2 py-1.5 border-rule font-semibold text-ink-2">What widens it most</th>
                <th className="px-2 py-1.5 border-rule font-semibold text-ink-2">Taken as</th>
                <th className="px-2 py-1.5 border-rule font-semibold text-ink-2">Alone moves it by</th>
                <th className="px-2 py-1.5 border-rule font-semibold text-ink-2 max-phone:last:hidden">Known how</th>
              </tr>
            </thead>
            <tbody>
              {working.shares.map((s) => (
                <tr key={s.label}>
                  <td className="px-2 py-1.5 border-rule">{words(s.label)}</td>
                  <td className="px-2 py-1.5 border-rule">
                    {showQuantity(s.value, s.unit)} {showSpread(s.spread, s.scale, s.unit)}
                  </td>
                  <td className="px-2 py-1.5 border-rule">±{showText(s.effect, b.unit)}</td>
                  <td className="px-2 py-1.5 border-rule max-phone:last:hidden">
                    {s.provenance}
                    {s.source ? `, ${s.source}` : ''}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </Sheet>
  );
}

export function KeysDialog({ onClose }: { onClose(): void }) {
  return (
    <Sheet title="Keys" onClose={onClose}>
      <dl className="keylist grid gap-1.5">
        {keySheet().map(({ shown, does }) => (
          <div className="grid items-center" key={shown}>
            <dt>
              <kbd className="px-2 py-0.5 border border-ink rounded font-cond font-bold text-lead">{shown}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  );
}
