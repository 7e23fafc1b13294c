'use client';
/** After the verdict: the estimate with its working, the approval on record, the repair. */
import { clsx } from 'clsx';
import { NOTHING_WRONG } from '../../core/diagnose/catalogue/nothingWrong';
import { estimate } from '../../core/price/estimate';
import { standingApproval, type Approval, type Job, standingChoice } from '../../core/job/job';
import { inWordsConfidence, showPercent } from '../../core/units/format';
import { showMoney, showRange } from '../../core/units/money';
import { useJobFile, useAnswers, useEntries, usePlace, useMeasuring } from '../shell/jobPage';
import { readFigure } from '../../core/units/typedFigure';
import { useDraft } from '../draft';

type DeclaredFault = Job['verdicts'][number];

const HOW: readonly { id: Approval['how']; label: string }[] = [
  { id: 'in-person', label: 'In person' },
  { id: 'phone', label: 'By telephone' },
  { id: 'message', label: 'By message' },
  { id: 'signed', label: 'Signed' },
];
export const howWords = (how: Approval['how']): string => HOW.find((h) => h.id === how)!.label.toLowerCase();

export function AfterVerdict({ verdict }: { verdict: DeclaredFault }) {
  const file = useJobFile();
  const entries = useEntries();
  const approval = standingApproval(file.job, verdict.id);
  const nothing = verdict.fault === NOTHING_WRONG.id;
  return (
    <div className="after grid content-start gap-2.5 pb-3 border-b-2 border-ink">
      <div>
        <div className="lab">Verdict, {verdict.by}</div>
        <div className="big font-cond font-bold text-figure leading-close">{file.words(verdict.name)}</div>
        <p className="quiet">
          {inWordsConfidence(verdict.probability)} ({showPercent(verdict.probability)} %)
          {verdict.settled ? ', settled' : ', with questions open'}.{' '}
          <button
            type="button"
            className="text-button"
            onClick={() => entries.send('verdict.withdraw', { id: verdict.id })}
          >
            Take the verdict back
          </button>
        </p>
      </div>
      {(!nothing || standingChoice(file.job)) && <Estimate verdict={verdict} />}
      {!nothing && (approval ? <Approved approval={approval} /> : <ApprovalForm key={verdict.id} verdict={verdict} />)}
      <RepairForm verdict={verdict} />
    </div>
  );
}

/** The suspect's minutes and parts, where the diagnosis still has them. */
function useEstimate(verdict: DeclaredFault) {
  const file = useJobFile();
  const answers = useAnswers();
  // A picked link is what will be built: the estimate follows it.
  const choice = standingChoice(file.job);
  if (choice) return { name: choice.name, sum: estimate(choice, file.settings) };
  const suspect = answers.diagnosis?.suspects.find((s) => s.fault === verdict.fault);
  return suspect?.minutes && suspect.parts
    ? { name: undefined, sum: estimate({ minutes: suspect.minutes, parts: suspect.parts }, file.settings) }
    : undefined;
}

function Estimate({ verdict }: { verdict: DeclaredFault }) {
  const file = useJobFile();
  const e = useEstimate(verdict);
  const { labourPerHour, currency, partsTimes } = file.settings;
  if (!e) return null;
  const { sum } = e;
  return (
    <table className="table estimate">
      <caption className="pb-0.5 font-cond font-bold text-left text-figure">
        Estimate{e.name ? `, ${file.words(e.name)}` : ''}: {showRange(...sum.total, currency)}
      </caption>
      <tbody>
        <tr>
          <th className="pr-2 py-1.25 border-b-1 border-rule text-note text-left text-ink" scope="row">
            Labor
          </th>
          <td className="pr-2 py-1.25 border-b-1 border-rule text-note text-left text-ink">
            {sum.minutes[0]} to {sum.minutes[1]} min at {showMoney(labourPerHour, currency)} an hour, by the started
            quarter
          </td>
          <td
            className={clsx(
              'py-1.25 border-b-1 border-rule',
              'font-cond font-bold text-large text-right text-ink whitespace-nowrap',
            )}
          >
            {showRange(...sum.labour, currency)}
          </td>
        </tr>
        <tr>
          <th className="pr-2 py-1.25 border-b-1 border-rule text-note text-left text-ink" scope="row">
            Parts
          </th>
          <td className="pr-2 py-1.25 border-b-1 border-rule text-note text-left text-ink">
            {sum.parts[1] === 0
              ? 'none expected'
              : `usual prices${partsTimes === 1 ? '' : `, × ${partsTimes}`}; assumed`}
          </td>
          <td
            className={clsx(
              'py-1.25 border-b-1 border-rule',
              'font-cond font-bold text-large text-right text-ink whitespace-nowrap',
            )}
          >
            {showRange(...sum.parts, currency)}
          </td>
        </tr>
      </tbody>
    </table>
  );
}

interface Asked {
  /** As typed; none while the estimate stands there. */
  sum?: string;
  who: string;
  how: Approval['how'];
}
const NOT_ASKED: Asked = { who: '', how: 'phone' };

function ApprovalForm({ verdict }: { verdict: DeclaredFault }) {
  const file = useJobFile();
  const { settings } = file;
  const { send } = useEntries();
  const suggested = useEstimate(verdict)?.sum.total[1];
  const [draft, setDraft, forget] = useDraft(`${file.job.number}/approval/${verdict.id}`, NOT_ASKED);
  const { sum, who, how } = draft;
  const text = sum ?? (suggested === undefined ? '' : String(Math.ceil(suggested)));
  const read = readFigure(text, '');
  const upTo = read.is === 'figure' ? read.value : NaN;
  const valid = upTo >= 0 && upTo <= 1_000_000;
  const record = () => {
    send('approval.record', {
      id: crypto.randomUUID(),
      verdict: verdict.id,
      upTo,
      currency: settings.currency,
      who: who.trim(),
      how,
    });
    forget();
    if (file.job.status === 'waiting-approval') send('job.set-status', { status: 'in-the-bay' });
  };
  return (
    <form
      className="grid gap-2 pt-2 border-t border-ink"
      onSubmit={(e) => (e.preventDefault(), valid && who.trim() !== '' && record())}
    >
      <h3 className="font-cond font-bold text-large">Approval</h3>
      <div className="three grid gap-2">
        <label className="field">
          <span>Up to, {settings.currency}</span>
          <input
            id="approve-sum"
            className="input max-w-none border-ink"
            inputMode="decimal"
            value={text}
            aria-invalid={!valid}
            // The estimate stands there as a suggestion: what is typed takes its place and is not put behind it.
            onFocus={(e) => sum === undefined && e.currentTarget.select()}
            onClick={(e) => sum === undefined && e.currentTarget.select()}
            onChange={(e) => setDraft({ ...draft, sum: e.target.value })}
          />
        </label>
        <label className="field">
          <span>Who agreed</span>
          <input
            className="input max-w-none border-ink"
            maxLength={80}
            value={who}
            placeholder="owner, driver"
            onChange={(e) => setDraft({ ...draft, who: e.target.value })}
            autoComplete="off"
          />
        </label>
        <label className="field">
          <span>How</span>
          <select
            className="select h-12 w-full border-ink bg-card text-ink text-plain"
            value={how}
            onChange={(e) => setDraft({ ...draft, how: e.target.value as Approval['how'] })}
          >
            {HOW.map((h) => (
              <option key={h.id} value={h.id}>
                {h.label}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="row flex flex-wrap gap-2">
        <button
          type="button"
          className="btn"
          aria-pressed={file.job.status === 'waiting-approval'}
          onClick={() =>
            send('job.set-status', {
              status: file.job.status === 'waiting-approval' ? 'in-the-bay' : 'waiting-approval',
            })
          }
        >
          {file.job.status === 'waiting-approval' ? 'Back in the bay' : 'Wait for approval'}
        </button>
        <button type="submit" className="btn btn-neutral" disabled={!valid || who.trim() === ''}>
          Approved
        </button>
      </div>
    </form>
  );
}

function Approved({ approval }: { approval: Approval }) {
  const file = useJobFile();
  const answers = useAnswers();
  const entries = useEntries();
  const choice = standingChoice(file.job);
  const e =
    choice ??
    answers.diagnosis?.suspects.find(
      (s) => s.fault === file.job.verdicts.find((v) => v.id === approval.verdict)?.fault,
    );
  const high = e?.minutes && e.parts ? estimate({ minutes: e.minutes, parts: e.parts }, file.settings).total[1] : 0;
  return (
    <div>
      <div className="lab">Approved</div>
      <p>
        Up to <b>{showMoney(approval.upTo, approval.currency)}</b> by {approval.who}, {howWords(approval.how)}; taken by{' '}
        {approval.by}, {approval.at.slice(0, 16).replace('T', ' ')} UTC.{' '}
        <button
          type="button"
          className="text-button"
          onClick={() => entries.send('approval.withdraw', { id: approval.id })}
        >
          Take it back
        </button>
      </p>
      {approval.currency === file.settings.currency && high > approval.upTo && (
        <p className="alert alert-warning alert-outline">
          The upper end of the estimate, {showMoney(high, approval.currency)}, is beyond what was approved: ask again
          before going on.
        </p>
      )}
    </div>
  );
}

/** What is recorded after a verdict: what was done or, where nothing is wrong, what the owner was told. */
const RECORDED = {
  repair: {
    asks: 'What was done (part fitted, torque, marks)',
    done: 'Repair done: prove it',
    readings: 'Readings taken so far are kept, but don’t count for the repaired rig.',
    title: 'Repair',
  },
  explained: {
    asks: 'What the owner was told, and what was cleaned or charged on the way',
    done: 'Explained: prove that it works',
    readings: 'Nothing is repaired. What works is measured once more as its proof: readings so far are kept beside it.',
    title: 'Explained',
  },
} as const;
const recordedOf = ({ fault }: DeclaredFault) => RECORDED[fault === NOTHING_WRONG.id ? 'explained' : 'repair'];

function RepairForm({ verdict }: { verdict: DeclaredFault }) {
  const { job } = useJobFile();
  const words = recordedOf(verdict);
  const { go } = usePlace();
  const { send } = useEntries();
  const [did, setDid, forget] = useDraft(`${job.number}/repair/${verdict.id}`, `${verdict.repair}.`);
  const record = () => {
    send('repair.record', {
      id: crypto.randomUUID(),
      verdict: verdict.id,
      revision: crypto.randomUUID(),
      did: did.trim(),
    });
    forget();
    go('prove');
  };
  return (
    <form
      className="repair grid content-start gap-2.25 py-1.5"
      onSubmit={(e) => (e.preventDefault(), did.trim() !== '' && record())}
    >
      <label className="field">
        <span>{words.asks}</span>
        <textarea
          id="repair-did"
          className="textarea w-full max-w-none border-ink"
          rows={2}
          maxLength={400}
          value={did}
          onChange={(e) => setDid(e.target.value)}
        />
      </label>
      <div className="row flex flex-wrap gap-2">
        {words === RECORDED.repair && (
          <button
            type="button"
            className="btn"
            aria-pressed={job.status === 'waiting-parts'}
            onClick={() =>
              send('job.set-status', { status: job.status === 'waiting-parts' ? 'in-the-bay' : 'waiting-parts' })
            }
          >
            {job.status === 'waiting-parts' ? 'Parts are here' : 'Wait for parts'}
          </button>
        )}
        <button type="submit" className="btn btn-neutral" disabled={did.trim() === ''}>
          {words.done}
        </button>
      </div>
      <p className="quiet">{words.readings}</p>
    </form>
  );
}

export function Repaired({ verdict, repair }: { verdict: DeclaredFault; repair: Job['repairs'][number] }) {
  const file = useJobFile();
  const measuring = useMeasuring();
  const place = usePlace();
  const entries = useEntries();
  const fresh = measuring.readings.length === 0;
  const approval = standingApproval(file.job, verdict.id);
  return (
    <div className="grid content-start gap-2.25 max-w-160 px-5.5 py-4.5 text-plain">
      <div className="lab">Verdict, {verdict.by}</div>
      <div className="big font-cond font-bold text-figure leading-close">{file.words(verdict.name)}</div>
      <p>
        {inWordsConfidence(verdict.probability)}, {showPercent(verdict.probability)} % when it was declared
        {verdict.settled ? ', settled' : ', with questions open'}.
      </p>
      {approval && (
        <>
          <div className="lab">Approved</div>
          <p>
            Up to {showMoney(approval.upTo, approval.currency)} by {approval.who}, {howWords(approval.how)}.
          </p>
        </>
      )}
      <div className="lab">
        {recordedOf(verdict).title}, {repair.by}
      </div>
      <p>{repair.did}</p>
      <div className="row flex flex-wrap gap-2">
        <button
          type="button"
          className="btn"
          disabled={!fresh}
          onClick={() => entries.send('repair.withdraw', { id: repair.id })}
        >
          {verdict.fault === NOTHING_WRONG.id ? 'Take it back' : 'Take the repair back'}
        </button>
        <button type="button" className="btn btn-neutral" onClick={() => place.go('prove')}>
          To the proof
        </button>
      </div>
      {!fresh && (
        <p className="quiet">
          {verdict.fault === NOTHING_WRONG.id
            ? 'Readings were taken since as its proof, so this stands.'
            : 'Readings were taken since: they are about the repaired rig, so the repair stands.'}
        </p>
      )}
    </div>
  );
}
