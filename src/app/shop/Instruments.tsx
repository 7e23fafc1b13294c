'use client';
/** The register of meters and clamps: what the data sheet says, and when each was compared last. */
import { clsx } from 'clsx';
import { useState } from 'react';
import type { ShopView } from '@/client/useShop';
import type { Shop } from '@/core/shop/shop';
import { dueOn, isOverdue, OVERDUE_FACTOR, USUAL_INSTRUMENT } from '@/core/probe/instrument';
import type { Instrument } from '@/core/probe/instrumentSchema';
import { NumberField } from '@/ui/fields';

const today = () => new Date().toISOString().slice(0, 10);

export function Instruments({ shop, view }: { shop: Shop; view: ShopView }) {
  const [name, setName] = useState('');
  const live = shop.instruments.filter((i) => !i.retired);
  const change = (was: Instrument, set: Instrument) => view.send('instrument.set', { was, set });
  const add = () => {
    const base =
      name
        .trim()
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^[^a-z]+|-+$/g, '')
        .slice(0, 34) || 'meter';
    let id = base;
    for (let n = 2; shop.instruments.some((i) => i.id === id); n++) id = `${base}-${n}`;
    view.send('instrument.set', { set: { ...USUAL_INSTRUMENT, id, name: name.trim() } });
    setName('');
  };
  return (
    <section className="grp-box" aria-label="Instruments">
      <h2 className="font-cond font-bold text-figure leading-none">Meters and clamps</h2>
      <p className="quiet">
        A reading weighs as much as its instrument allows. One past its date, or never verified, is taken to be{' '}
        {OVERDUE_FACTOR} times less accurate (assumed).
      </p>
      {live.length === 0 && <p>None yet: readings are taken to be by a usual handheld.</p>}
      {live.map((i) => {
        const due = dueOn(i);
        const late = isOverdue(i, today());
        return (
          <div key={i.id} className="grid gap-1.5 py-2 border-t border-ink" role="group" aria-label={i.name}>
            <h3 className="flex justify-between gap-2.5 font-cond font-bold text-head">
              {i.name}
              <small className={clsx('font-semibold text-plain text-ok', 'is-late:text-warn', late ? 'late' : '')}>
                {due === undefined ? 'never verified' : late ? `overdue since ${due}` : `good until ${due}`}
              </small>
            </h3>
            <NumberField
              late
              label="DC volts, ± of reading"
              unit="%"
              value={i.voltPercent}
              min={0.01}
              max={10}
              onChange={(voltPercent) => change(i, { ...i, voltPercent })}
            />
            <NumberField
              late
              label="and last digits"
              unit="digits"
              value={i.voltDigits}
              min={0}
              max={50}
              onChange={(voltDigits) => change(i, { ...i, voltDigits })}
            />
            <NumberField
              late
              label="DC clamp, ± of reading"
              unit="%"
              value={i.ampPercent}
              min={0.1}
              max={20}
              onChange={(ampPercent) => change(i, { ...i, ampPercent })}
            />
            <NumberField
              late
              label="and near zero"
              unit="A"
              value={i.ampFloor}
              min={0.01}
              max={20}
              onChange={(ampFloor) => change(i, { ...i, ampFloor })}
            />
            <label className="numfield grid items-center gap-x-2.5 gap-y-1">
              <span className="first:m-0 first:p-0 first:font-semibold first:text-note">
                Compared with something known on
              </span>
              <input
                className="input"
                type="date"
                max={today()}
                value={i.calibratedOn ?? ''}
                onChange={(e) => {
                  const { calibratedOn: _, ...rest } = i;
                  change(i, e.target.value === '' ? rest : { ...rest, calibratedOn: e.target.value });
                }}
              />
            </label>
            <NumberField
              late
              label="which holds"
              unit="months"
              value={i.months}
              min={1}
              max={120}
              onChange={(months) => Number.isInteger(months) && change(i, { ...i, months })}
            />
            <button type="button" className="btn" onClick={() => change(i, { ...i, retired: true })}>
              Retire it
            </button>
          </div>
        );
      })}
      <form className="row flex flex-wrap gap-2" onSubmit={(e) => (e.preventDefault(), name.trim() !== '' && add())}>
        <label className="field">
          <span>A new one, as the shop calls it</span>
          <input
            className="input w-full max-w-none border-ink"
            maxLength={60}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-neutral" disabled={name.trim() === ''}>
          Add it
        </button>
      </form>
    </section>
  );
}
