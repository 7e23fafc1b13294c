'use client';
/** Questions asked backwards of one candidate: how long, how late, how many days. */
import { clsx } from 'clsx';
import { has } from '../../core/rig/value';
import { useEffect, useRef, useState } from 'react';
import type { HoursAnswer } from '../../core/plan/questions';
import type { Compared } from '../../core/plan/compare';
import { LETTERS } from '../../core/plan/letters';
import { Choose, NumberField } from '../fields';
import { useJobFile } from '../shell/jobPage';
import type { OptionsSource, Question } from './source';

const ASKS = [
  { id: 'how-long', label: 'How long to charge?' },
  { id: 'how-late', label: 'How late may I begin?' },
  { id: 'how-long-lasts', label: 'How long does the bank last?' },
  { id: 'how-long-stands', label: 'How long until it does not start?' },
  { id: 'generator-cranks', label: 'Will the generator crank?' },
] as const;
type Ask = (typeof ASKS)[number]['id'];

export function AskPanel({
  rows,
  source,
  picked,
  house,
}: {
  rows: readonly Compared[];
  source: OptionsSource;
  picked: string;
  house: string | undefined;
}) {
  const { rig, words } = useJobFile();
  const [ask, setAsk] = useState<Ask>('how-long');
  const [kind, setKind] = useState<'drive' | 'idle' | 'shore'>('drive');
  const [from, setFrom] = useState(0.4);
  const [to, setTo] = useState(0.8);
  const [hours, setHours] = useState(5);
  /** How many of the links are answered while it is worked out. */
  const [done, setDone] = useState<number>();
  const running = useRef<AbortController>(undefined);
  useEffect(() => () => running.current?.abort(), []);
  const [answers, setAnswers] = useState<{ id: string; name: string; answer: HoursAnswer }[]>();
  const [failed, setFailed] = useState<string>();
  const shore = has(rig, 'mainsCharger');
  const question = (): Question =>
    ask === 'how-long'
      ? { ask, kind, from, to }
      : ask === 'how-late'
        ? { ask, driveHours: hours, from, to }
        : ask === 'how-long-lasts'
          ? { ask, from, floor: to }
          : ask === 'generator-cranks'
            ? { ask, from }
            : { ask };
  const go = async () => {
    const controller = new AbortController();
    running.current = controller;
    setDone(0);
    setFailed(undefined);
    try {
      const list: { id: string; name: string; answer: HoursAnswer }[] = [];
      for (const row of rows) {
        const asked = {
          candidate: row.candidate.id,
          question: question(),
          celsius: 15,
          loads: ask === 'how-long-stands' ? [] : (['standby', 'fridge-compressor'] as const),
        };
        const { id, name } = row.candidate;
        list.push({ id, name, answer: await source.ask({ ...asked, loads: [...asked.loads] }, controller.signal) });
        setDone(list.length);
        setAnswers([...list]);
      }
    } catch (e) {
      if ((e as Error).name !== 'AbortError') setFailed((e as Error).message);
    } finally {
      setDone(undefined);
    }
  };
  const percent = (label: string, value: number, set: (x: number) => void) => (
    <NumberField
      label={label}
      unit="%"
      value={Math.round(value * 100)}
      min={0}
      max={100}
      onChange={(x) => set(x / 100)}
    />
  );
  return (
    <div className="grid gap-2.5 px-3.5 py-3">
      <Choose
        label=""
        choices={ASKS.filter((a) => a.id !== 'generator-cranks' || has(rig, 'generator'))}
        value={ask}
        onChange={(id) => (setAsk(id), setAnswers(undefined))}
      />
      <div className="flex flex-wrap items-end gap-2.5">
        {ask === 'how-long' && (
          <Choose<'drive' | 'idle' | 'shore'>
            label="By"
            choices={[
              { id: 'drive', label: 'driving' },
              { id: 'idle', label: 'idling' },
              ...(shore ? [{ id: 'shore', label: words('shore power') } as const] : []),
            ]}
            value={kind}
            onChange={setKind}
          />
        )}
        {ask === 'how-late' && (
          <NumberField label="On a drive of" unit="h" value={hours} min={0.1} max={24} onChange={setHours} />
        )}
        {ask !== 'how-long-stands' && percent(`${house ?? 'Bank'} from`, from, setFrom)}
        {ask !== 'how-long-stands' &&
          ask !== 'generator-cranks' &&
          percent(ask === 'how-long-lasts' ? 'down to' : 'to', to, setTo)}
        {done === undefined ? (
          <button type="button" className="btn btn-neutral" onClick={go}>
            Work it out
          </button>
        ) : (
          <>
            <progress
              className="progress w-24 self-center"
              value={done}
              max={rows.length}
              aria-label="Working it out"
            />
            <button type="button" className="btn" onClick={() => running.current?.abort()}>
              Stop
            </button>
          </>
        )}
      </div>
      <p className="quiet">
        At 15 °C outside
        {ask === 'how-long-stands'
          ? ', everything in the living space off'
          : ', with a compressor fridge and the standby list running'}
        . Found by running the simulation until the answer is right to half a minute.
      </p>
      {failed && <p role="alert">{failed}</p>}
      {answers && (
        <ul className="answers border-t-2 border-ink" aria-live="polite">
          {answers.map(({ id, name, answer }, i) => (
            <li
              key={id}
              className={clsx(
                'grid items-center gap-2',
                'py-2 border-b-1 border-rule',
                'is-on:px-2 is-on:bg-ink is-on:text-paper',
                id === picked ? 'on' : '',
              )}
            >
              <span
                className={clsx(
                  'inline-grid place-items-center flex-none',
                  'w-6.25 h-6.25 border border-current rounded',
                  'font-cond font-bold text-lead',
                )}
              >
                {LETTERS[i]}
              </span>
              <span>
                <b className="block font-cond text-head leading-close">{words(answer.says)}</b>
                <small className="text-ink-2 text-fine within-on:text-paper">{words(name)}</small>
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
