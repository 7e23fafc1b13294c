'use client';
/** After the verdict: the estimate with its working, the approval on record, the repair. */
import { useState } from 'react';
import { NOTHING_WRONG } from '../../core/diagnose/catalogue/nothingWrong';
import { estimate } from '../../core/price/estimate';
import { standingApproval, type Approval, type Job, standingChoice } from '../../core/job/job';
import { inWordsConfidence, showPercent } from '../../core/units/format';
import { showMoney, showRange } from '../../core/units/money';
import type { JobPage } from '../shell/jobPage';
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

export function AfterVerdict({ page, verdict }: { page: JobPage; verdict: DeclaredFault }) {
  const approval = standingApproval(page.job, verdict.id);
  const nothing = verdict.fault === NOTHING_WRONG.id;
  return (
    <div className="after">
      <div>
        <div className="lab">Verdict, {verdict.by}</div>
        <div className="big">{page.words(verdict.name)}</div>
        <p className="quiet">
          {inWordsConfidence(verdict.probability)} ({showPercent(verdict.probability)} %)
          {verdict.settled ? ', settled' : ', with questions open'}.{' '}
          <button type="button" className="inline" onClick={() => page.send('verdict.withdraw', { id: verdict.id })}>
            Take the verdict back
          </button>
        </p>
      </div>
      {(!nothing || standingChoice(page.job)) && <Estimate page={page} verdict={verdict} />}
      {!nothing &&
        (approval ? (
          <Approved page={page} approval={approval} />
        ) : (
          <ApprovalForm key={verdict.id} page={page} verdict={verdict} />
        ))}
      <RepairForm page={page} verdict={verdict} />
    </div>
  );
}

/** The suspect's minutes and parts, where the diagnosis still has them. */
function useEstimate(page: JobPage, verdict: DeclaredFault) {
  // A picked link is what will be built: the estimate follows it.
  const choice = standingChoice(page.job);
  if (choice) return { name: choice.name, sum: estimate(choice, page.settings) };
  const suspect = page.diagnosis?.suspects.find((s) => s.fault === verdict.fault);
  return suspect?.minutes && suspect.parts
    ? { name: undefined, sum: estimate({ minutes: suspect.minutes, parts: suspect.parts }, page.settings) }
    : undefined;
}

function Estimate({ page, verdict }: { page: JobPage; verdict: DeclaredFault }) {
  const e = useEstimate(page, verdict);
  const { labourPerHour, currency, partsTimes } = page.settings;
  if (!e) return null;
  const { sum } = e;
  return (
    <table className="table estimate">
      <caption>
        Estimate{e.name ? `, ${page.words(e.name)}` : ''}: {showRange(...sum.total, currency)}
      </caption>
      <tbody>
        <tr>
          <th scope="row">Labor</th>
          <td>
            {sum.minutes[0]} to {sum.minutes[1]} min at {showMoney(labourPerHour, currency)} an hour, by the started
            quarter
          </td>
          <td className="num">{showRange(...sum.labour, currency)}</td>
        </tr>
        <tr>
          <th scope="row">Parts</th>
          <td>
            {sum.parts[1] === 0
              ? 'none expected'
              : `usual prices${partsTimes === 1 ? '' : `, × ${partsTimes}`}; assumed`}
          </td>
          <td className="num">{showRange(...sum.parts, currency)}</td>
        </tr>
      </tbody>
    </table>
  );
}

function ApprovalForm({ page, verdict }: { page: JobPage; verdict: DeclaredFault }) {
  const { settings, send } = page;
  const suggested = useEstimate(page, verdict)?.sum.total[1];
  const [sum, setSum] = useState<string>();
  const [who, setWho] = useState('');
  const [how, setHow] = useState<Approval['how']>('phone');
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
    if (page.job.status === 'waiting-approval') send('job.set-status', { status: 'in-the-bay' });
  };
  return (
    <form className="approval" onSubmit={(e) => (e.preventDefault(), valid && who.trim() !== '' && record())}>
      <h3>Approval</h3>
      <div className="three">
        <label className="field">
          <span>Up to, {settings.currency}</span>
          <input
            id="approve-sum"
            className="input"
            inputMode="decimal"
            value={text}
            aria-invalid={!valid}
            onChange={(e) => setSum(e.target.value)}
          />
        </label>
        <label className="field">
          <span>Who agreed</span>
          <input
            className="input"
            maxLength={80}
            value={who}
            placeholder="owner, driver"
            onChange={(e) => setWho(e.target.value)}
            autoComplete="off"
          />
        </label>
        <label className="field">
          <span>How</span>
          <select className="select" value={how} onChange={(e) => setHow(e.target.value as Approval['how'])}>
            {HOW.map((h) => (
              <option key={h.id} value={h.id}>
                {h.label}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="row">
        <button
          type="button"
          className="bx"
          aria-pressed={page.job.status === 'waiting-approval'}
          onClick={() =>
            send('job.set-status', {
              status: page.job.status === 'waiting-approval' ? 'in-the-bay' : 'waiting-approval',
            })
          }
        >
          {page.job.status === 'waiting-approval' ? 'Back in the bay' : 'Wait for approval'}
        </button>
        <button type="submit" className="bx ink" disabled={!valid || who.trim() === ''}>
          Approved
        </button>
      </div>
    </form>
  );
}

function Approved({ page, approval }: { page: JobPage; approval: Approval }) {
  const choice = standingChoice(page.job);
  const e =
    choice ??
    page.diagnosis?.suspects.find((s) => s.fault === page.job.verdicts.find((v) => v.id === approval.verdict)?.fault);
  const high = e?.minutes && e.parts ? estimate({ minutes: e.minutes, parts: e.parts }, page.settings).total[1] : 0;
  return (
    <div>
      <div className="lab">Approved</div>
      <p>
        Up to <b>{showMoney(approval.upTo, approval.currency)}</b> by {approval.who}, {howWords(approval.how)}; taken by{' '}
        {approval.by}, {approval.at.slice(0, 16).replace('T', ' ')} UTC.{' '}
        <button type="button" className="inline" onClick={() => page.send('approval.withdraw', { id: approval.id })}>
          Take it back
        </button>
      </p>
      {approval.currency === page.settings.currency && high > approval.upTo && (
        <p className="alert alert-warning alert-outline">
          The upper end of the estimate, {showMoney(high, approval.currency)}, is beyond what was approved: ask again
          before going on.
        </p>
      )}
    </div>
  );
}

function RepairForm({ page, verdict }: { page: JobPage; verdict: DeclaredFault }) {
  const { send, go, job } = page;
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
    <form className="repair" onSubmit={(e) => (e.preventDefault(), did.trim() !== '' && record())}>
      <label className="field">
        <span>What was done (part fitted, torque, marks)</span>
        <textarea
          id="repair-did"
          className="textarea"
          rows={2}
          maxLength={400}
          value={did}
          onChange={(e) => setDid(e.target.value)}
        />
      </label>
      <div className="row">
        <button
          type="button"
          className="bx"
          aria-pressed={job.status === 'waiting-parts'}
          onClick={() =>
            send('job.set-status', { status: job.status === 'waiting-parts' ? 'in-the-bay' : 'waiting-parts' })
          }
        >
          {job.status === 'waiting-parts' ? 'Parts are here' : 'Wait for parts'}
        </button>
        <button type="submit" className="bx ink" disabled={did.trim() === ''}>
          Repair done: prove it
        </button>
      </div>
      <p className="quiet">Readings taken so far are kept, but don’t count for the repaired rig.</p>
    </form>
  );
}

export function Repaired({
  page,
  verdict,
  repair,
}: {
  page: JobPage;
  verdict: DeclaredFault;
  repair: Job['repairs'][number];
}) {
  const fresh = page.readings.length === 0;
  const approval = standingApproval(page.job, verdict.id);
  return (
    <div className="told">
      <div className="lab">Verdict, {verdict.by}</div>
      <div className="big">{page.words(verdict.name)}</div>
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
      <div className="lab">Repair, {repair.by}</div>
      <p>{repair.did}</p>
      <div className="row">
        <button
          type="button"
          className="bx"
          disabled={!fresh}
          onClick={() => page.send('repair.withdraw', { id: repair.id })}
        >
          Take the repair back
        </button>
        <button type="button" className="bx ink" onClick={() => page.go('prove')}>
          To the proof
        </button>
      </div>
      {!fresh && (
        <p className="quiet">Readings were taken since: they are about the repaired rig, so the repair stands.</p>
      )}
    </div>
  );
}
