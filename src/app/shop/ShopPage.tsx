'use client';
/** What the shop sets for itself: units, words, rates, minutes, likelihoods, instruments. */
import { clsx } from 'clsx';
import { Undo2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { useShop, type ShopView } from '@/client/useShop';
import { ASSUMPTION_LIMITS, type EditableAssumption } from '@/core/diagnose/assumptionLimits';
import { DEFAULT_SETTINGS, type Shop } from '@/core/shop/shop';
import { CURRENCIES, showMoney } from '@/core/units/money';
import { RULE_SETS } from '@/core/codes';
import { may, SIGNING, whoMay } from '@/core/people/roles';
import { GAUGE_UNITS, JURISDICTIONS, LENGTH_UNITS, TEMPERATURE_UNITS } from '@/core/units/preferences';
import { inWords, VOCABULARIES } from '@/core/units/vocabulary';
import { Choose, NumberField } from '@/ui/fields';
import { PageTop } from '@/ui/PageTop';
import { Instruments } from './Instruments';
import { Learning } from './Learning';

function Group({ title, says, children }: { title: string; says?: string; children: ReactNode }) {
  return (
    <section className="grp-box" aria-label={title}>
      <h2 className="font-cond font-bold text-figure leading-none">{title}</h2>
      {says && <p className="quiet">{says}</p>}
      {children}
    </section>
  );
}

export function ShopPage() {
  const view = useShop();
  const { shop } = view;
  return (
    <div className="newjob shop-page grid h-dvh overflow-hidden">
      <PageTop title="Shop" name={shop?.name ?? ''} sub={view.actor}>
        <button type="button" className="btn" onClick={view.undo} disabled={!view.canUndo}>
          <Undo2 size={20} aria-hidden="true" />
          Undo
        </button>
      </PageTop>
      {view.error && !shop && (
        <p className="notice" role="alert">
          {view.error.message}
        </p>
      )}
      {view.trouble && (
        <p className="notice" role="status">
          {view.trouble}
        </p>
      )}
      {view.refused.map((e) => (
        <p key={e.command.id} className="alert alert-warning alert-outline" role="alert">
          {e.reason}
          {e.status === 'aside' && (
            <button type="button" onClick={() => view.resend(e.command.id)}>
              Send again
            </button>
          )}
          <button type="button" onClick={() => view.dismiss(e.command.id)}>
            I have seen it
          </button>
        </p>
      ))}
      {!shop && !view.error && (
        <p className="boot" role="status">
          Opening the shop’s settings …
        </p>
      )}
      {shop && !may(view.role, 'settings') && (
        <p className="notice" role="note">
          To change this is for {whoMay('settings')}. You are signed in as {view.actor}.
        </p>
      )}
      {shop && <Settings shop={shop} view={view} />}
    </div>
  );
}

const DAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] as const;

function BaysField({ bays, set }: { bays: readonly string[]; set(bays: string[]): void }) {
  const [text, setText] = useState(bays.join(', '));
  const list = [
    ...new Set(
      text
        .split(',')
        .map((b) => b.trim())
        .filter((b) => b !== ''),
    ),
  ];
  const wrong = list.length === 0 || list.length > 30 || list.some((b) => b.length > 40);
  return (
    <label className="field">
      <span>Bays, separated by commas</span>
      <input
        className="input w-full max-w-none border-ink"
        value={text}
        aria-invalid={wrong}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => !wrong && list.join() !== bays.join() && set(list)}
      />
    </label>
  );
}

function Settings({ shop, view }: { shop: Shop; view: ShopView }) {
  const { settings: s } = shop;
  const { set } = view;
  return (
    <main className="newform grid items-start gap-3 p-3 overflow-y-auto max-phone:p-2">
      <div className="grid gap-3">
        <Group title="Words and units">
          <Choose
            label="Vocabulary"
            choices={VOCABULARIES}
            value={s.vocabulary}
            onChange={(vocabulary) => set({ vocabulary })}
          />
          <p className="quiet">{inWords(s.vocabulary, 'Coach bank, chassis bank, shore power, ground.')}</p>
          <Choose label="Lengths" choices={LENGTH_UNITS} value={s.length} onChange={(length) => set({ length })} />
          <Choose label="Gauges" choices={GAUGE_UNITS} value={s.gauge} onChange={(gauge) => set({ gauge })} />
          <Choose
            label="Temperatures"
            choices={TEMPERATURE_UNITS}
            value={s.temperature}
            onChange={(temperature) => set({ temperature })}
          />
          <Choose
            label="Rules named"
            choices={JURISDICTIONS}
            value={s.jurisdiction}
            onChange={(jurisdiction) => set({ jurisdiction })}
          />
          <p className="quiet">
            {RULE_SETS[s.jurisdiction].standards} (from memory: check the edition). Local codes and licensed practice
            come first.
          </p>
        </Group>
        <Group title="Signing" says="Who signs a record as finished.">
          <Choose label="Signed by" choices={SIGNING} value={s.signing} onChange={(signing) => set({ signing })} />
        </Group>
        <Group title="Bays and hours" says="What the calendar holds bookings against.">
          <BaysField bays={s.bays} set={(bays) => set({ bays })} />
          <div className="grid grid-cols-2 gap-x-3 gap-y-2">
            <NumberField
              late
              label="Opens at"
              unit="h"
              value={s.hours.from}
              min={0}
              max={23}
              onChange={(from) => Number.isInteger(from) && from < s.hours.to && set({ hours: { ...s.hours, from } })}
            />
            <NumberField
              late
              label="Closes at"
              unit="h"
              value={s.hours.to}
              min={1}
              max={24}
              onChange={(to) => Number.isInteger(to) && to > s.hours.from && set({ hours: { ...s.hours, to } })}
            />
          </div>
          <fieldset className="choose min-w-0 m-0 p-0">
            <legend className="mb-1 p-0 font-semibold text-note">Days</legend>
            <div className="flex flex-wrap gap-1.25 max-small:min-w-0">
              {DAYS.map((name, d) => (
                <label
                  key={name}
                  className={clsx(
                    'relative inline-flex items-center',
                    'min-h-11 px-2.75 border border-ink rounded bg-card',
                    'font-cond font-semibold text-lead cursor-pointer',
                    'is-on:bg-ink is-on:text-paper',
                    s.hours.days.includes(d) ? 'on' : '',
                  )}
                >
                  <input
                    className="absolute w-0.25 h-0.25 opacity-0"
                    type="checkbox"
                    checked={s.hours.days.includes(d)}
                    onChange={() =>
                      set({
                        hours: {
                          ...s.hours,
                          days: s.hours.days.includes(d)
                            ? s.hours.days.filter((x) => x !== d)
                            : [...s.hours.days, d].sort(),
                        },
                      })
                    }
                  />
                  {name}
                </label>
              ))}
            </div>
          </fieldset>
        </Group>
        <Group title="Rates" says="What an estimate is made of.">
          <Choose
            label="Currency"
            choices={CURRENCIES.map((id) => ({ id, label: id }))}
            value={s.currency}
            onChange={(currency) => set({ currency })}
          />
          <NumberField
            late
            label="Labor, an hour"
            unit={s.currency}
            value={s.labourPerHour}
            min={0}
            max={2000}
            onChange={(labourPerHour) => set({ labourPerHour })}
          />
          <NumberField
            late
            label="Parts, times the catalog’s usual price in USD"
            unit="×"
            value={s.partsTimes}
            min={0.1}
            max={20}
            onChange={(partsTimes) => set({ partsTimes })}
          />
          <p className="quiet">
            An hour and a $100 part come to {showMoney(s.labourPerHour + 100 * s.partsTimes, s.currency)}.
          </p>
        </Group>
      </div>
      <div className="grid gap-3">
        <Group
          title="Minutes to open up a place"
          says="The next test is chosen by what it tells a minute. Assumed until you say better."
        >
          {Object.entries(s.openMinutes).map(([place, minutes]) => (
            <NumberField
              late
              key={place}
              label={place === 'other' ? 'Anywhere else' : inWords(s.vocabulary, place)}
              unit="min"
              value={minutes}
              min={0}
              max={120}
              onChange={(value) => set({ openMinutes: { ...s.openMinutes, [place]: value } })}
            />
          ))}
          {view.pace
            .filter((p) => Math.abs(p.minutes - (s.openMinutes[p.place] ?? s.openMinutes['other']!)) >= 0.5)
            .map((p) => (
              <p key={p.place} className="pace">
                Your own rounds: {inWords(s.vocabulary, p.place).toLowerCase()} took {p.minutes} min, {p.times} times.
                <button
                  type="button"
                  className="text-button"
                  onClick={() => set({ openMinutes: { ...s.openMinutes, [p.place]: p.minutes } })}
                >
                  Take it over
                </button>
              </p>
            ))}
        </Group>
        <Group title="What the diagnosis takes for granted" says="All assumed. They are shown in every working.">
          {(Object.keys(ASSUMPTION_LIMITS) as EditableAssumption[]).map((key) => {
            const spec = ASSUMPTION_LIMITS[key];
            return (
              <div key={key}>
                <NumberField
                  late
                  label={spec.label}
                  unit={spec.unit}
                  value={s.likelihoods[key] * spec.times}
                  min={spec.min * spec.times}
                  max={spec.max * spec.times}
                  onChange={(v) => set({ likelihoods: { ...s.likelihoods, [key]: v / spec.times } })}
                />
                <p className="quiet -mt-0.5">
                  {spec.says}
                  {s.likelihoods[key] !== DEFAULT_SETTINGS.likelihoods[key] &&
                    ` Usual: ${Number((DEFAULT_SETTINGS.likelihoods[key] * spec.times).toFixed(2))} ${spec.unit}.`}
                </p>
              </div>
            );
          })}
        </Group>
      </div>
      <Instruments shop={shop} view={view} />
      <Learning shop={shop} view={view} />
    </main>
  );
}
