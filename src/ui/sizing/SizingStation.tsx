'use client';
/** Copper, fuses and design rules of the picked link, or of the rig as it stands; each figure solved on the customer's use. */
import { clsx } from 'clsx';
import { partWith } from '../../core/rig/value';
import { useEffect, useMemo, useState } from 'react';
import { Choose } from '../fields';
import { useJobFile, useAnswers, usePlace, useEntries } from '../shell/jobPage';
import { useWorked } from '../useWorked';
import { StationBar } from '../StationBar';
import { standingChoice } from '../../core/job/job';
import type { Autofix } from '../../core/rules/rule';
import { UNREAD_INSULATION_CELSIUS } from '../../core/units/ampacity';
import type { JobFinding } from '../../core/rules/sized';
import type { TowInterface } from '../../core/rig/tow';
import { ChargerPanel } from './ChargerPanel';
import { FusePanel } from './FusePanel';
import { RulePanel } from './RulePanel';
import { RunPanel } from './RunPanel';
import { SizingSlip } from './SizingSlip';
import { ThresholdPanel } from './ThresholdPanel';
import { Trouble } from '../Trouble';
import { TowPanel } from './tow/TowPanel';

const VIEWS = [
  { id: 'runs', label: 'Cables' },
  { id: 'fuses', label: 'Fuses' },
  { id: 'charger', label: 'Charger' },
  { id: 'thresholds', label: 'Thresholds' },
  { id: 'tow', label: 'Tow plug' },
  { id: 'rules', label: 'Rules' },
] as const;
/** ms a change rests before it is worked out: one drags. */
const RESTS = 60;
type View = (typeof VIEWS)[number]['id'];

export function SizingStation() {
  const file = useJobFile();
  const { job } = file;
  const { options: source } = useAnswers();
  const { setPreview, setRuled } = usePlace();
  const { send } = useEntries();
  const [view, setView] = useState<View>('runs');
  const [drops, setDrops] = useState<Readonly<Record<string, number>>>({});
  const [upfit, setUpfit] = useState<number>();
  const choice = standingChoice(job);
  const doc = useMemo(
    () => job.revisions.find((r) => r.id === choice?.revision)?.doc ?? file.described,
    [job.revisions, choice?.revision, file.described],
  );
  const { gauge, jurisdiction } = file.settings;
  const from = [doc, job.usage, job.waivers, file.settings] as const;
  const { data: tow } = useWorked('tow', from, () => source.tow(jurisdiction).then((t) => t ?? null), { rests: RESTS });
  const {
    data: sized,
    error,
    isFetching: working,
  } = useWorked(
    'size',
    [...from, drops, upfit],
    () => source.size({ drops, gauge, jurisdiction, ...(upfit === undefined ? {} : { upfit }) }),
    { rests: RESTS },
  );
  const failed = error?.message;
  // The strip shows what is sized, not what stands in the bay.
  useEffect(() => {
    if (choice) setPreview(doc);
    return () => setPreview(undefined);
  }, [choice, doc, setPreview]);

  useEffect(() => {
    const marks: Record<string, 'danger' | 'warn'> = {};
    const mark = (at: string, severity: string) => {
      const part = doc.parts.some((p) => p.id === at) ? at : doc.conductors.find((c) => c.id === at)?.to.part;
      if (part === undefined || severity === 'tidy' || marks[part] === 'danger') return;
      marks[part] = severity === 'danger' ? 'danger' : 'warn';
    };
    for (const f of sized?.findings ?? []) if (!f.waiver) mark(f.at, f.severity);
    for (const t of tow?.audit.before.troubles ?? []) mark(partWith(doc, 'towConnector')?.id ?? '', t.severity);
    setRuled(marks);
    return () => setRuled(undefined);
  }, [doc, sized, tow, setRuled]);
  const waive = (f: JobFinding, reason: string) =>
    send('waiver.record', { id: crypto.randomUUID(), rule: f.rule, at: f.at, reason });
  const takeBack = (id: string) => send('waiver.withdraw', { id });

  const mend = (m: Autofix) => {
    if (!sized) return;
    // On a proposal it is part of it; on the rig as it stands, what somebody saw mends the description.
    const how = sized.revision
      ? { means: 'proposed' as const, revision: sized.revision }
      : { means: 'described-wrong' as const };
    if ('part' in m) {
      const part = doc.parts.find((p) => p.id === m.part)!;
      const was = Object.fromEntries(
        Object.keys(m.set).map((k) => [
          k,
          k === 'params'
            ? Object.fromEntries(Object.keys(m.set.params!).map((n) => [n, part.params[n] ?? m.set.params![n]!]))
            : k === 'options'
              ? (part.options ?? {})
              : k === 'note'
                ? (part.note ?? '')
                : part[k as 'name'],
        ]),
      );
      send('part.edit', { part: m.part, was, set: m.set, ...how });
      return;
    }
    if ('pieces' in m) {
      send('pieces.add', { ...m.pieces, ...how });
      return;
    }
    for (const id of m.conductors) {
      const c = doc.conductors.find((x) => x.id === id);
      if (!c) continue;
      const now = { insulation: UNREAD_INSULATION_CELSIUS, inEngineSpace: false, bundled: 1, looked: false, ...c };
      const was = Object.fromEntries(Object.keys(m.set).map((k) => [k, now[k as 'gauge']]));
      send('conductor.edit', { conductor: id, was, set: m.set, ...how });
    }
  };

  const describe = (set: TowInterface) =>
    send('tow.edit', {
      ...(doc.tow ? { was: doc.tow } : {}),
      set,
      ...(tow?.revision
        ? { means: 'proposed' as const, revision: tow.revision }
        : { means: 'described-wrong' as const }),
    });
  // On a proposal it is going to be built; on the rig as it is somebody has done it.
  const apply = () =>
    tow?.audit.after &&
    send('tow.edit', {
      ...(doc.tow ? { was: doc.tow } : {}),
      set: tow.audit.after.tow,
      ...(tow.revision
        ? { means: 'proposed' as const, revision: tow.revision }
        : { means: 'changed' as const, revision: crypto.randomUUID() }),
    });
  const count = tow?.audit.changes.length ?? 0;
  const applies = `${tow?.revision ? 'Put into the proposal' : 'It is done on the rig'}: ${count} change${count === 1 ? '' : 's'}`;

  return (
    <div
      className={clsx(
        'options sizing',
        'grid grid-cols-slip',
        'h-full min-h-0',
        'max-narrow:grid-cols-1 max-narrow:grid-rows-foot max-phone:block max-phone:h-auto',
      )}
    >
      <div className="omain">
        <StationBar>
          <Choose<View>
            label=""
            choices={VIEWS.filter(
              (v) =>
                (v.id !== 'charger' || (sized?.chargers.length ?? 0) > 0) &&
                (v.id !== 'thresholds' || (sized?.thresholds.length ?? 0) > 0) &&
                (v.id !== 'tow' || tow),
            )}
            value={view}
            onChange={setView}
          />
          <span className="oprogress" role="status">
            {working ? 'Working out …' : ''}
          </span>
          <b className="ofor ml-auto overflow-hidden font-cond text-large text-ellipsis whitespace-nowrap">
            {choice ? file.words(choice.name) : 'The rig as it is'}
          </b>
        </StationBar>
        {failed && <Trouble>{failed}</Trouble>}
        {sized?.cutShort.map((c) => (
          <Trouble key={c.scenario} role="note">
            {file.words(c.scenario)} could be worked out for its first {c.hours.toFixed(1)} h only: what the wires carry
            after that is not in these figures.
          </Trouble>
        ))}
        {view === 'tow' && tow ? (
          <TowPanel report={tow} describe={describe} apply={apply} applies={applies} />
        ) : !sized ? (
          !failed && (
            <p className="waiting py-2 text-note text-ink-2">Working out what every cable carries on this use …</p>
          )
        ) : view === 'runs' ? (
          <RunPanel sized={sized} doc={doc} setDrop={(id, share) => setDrops({ ...drops, [id]: share })} mend={mend} />
        ) : view === 'fuses' ? (
          <FusePanel sized={sized} mend={mend} />
        ) : view === 'charger' ? (
          <ChargerPanel sized={sized} mend={mend} upfit={upfit} setUpfit={setUpfit} />
        ) : view === 'thresholds' ? (
          <ThresholdPanel sized={sized} mend={mend} />
        ) : (
          <RulePanel sized={sized} mend={mend} waive={waive} takeBack={takeBack} />
        )}
      </div>
      <SizingSlip
        sized={sized}
        mend={mend}
        show={setView}
        {...(view === 'tow' && tow ? { tow, apply, applies } : {})}
      />
    </div>
  );
}
