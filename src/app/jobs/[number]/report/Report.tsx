'use client';
/** One page that says what was wrong, how it was shown, and that it is right now. */
import { clsx } from 'clsx';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { engine } from '@/client/engine';
import { useJob } from '@/client/useJob';
import type { Identity } from '@/core/job/identity';
import type { ReportData } from '@/core/documents/report';
import { REPORT_FOOT } from '@/core/documents/reportFoot';
import type { Shop } from '@/core/shop/shop';
import { showMoney, showRange } from '@/core/units/money';
import { howWords } from '@/ui/fault/AfterVerdict';
import { Sign } from '@/ui/strip/glyphs';
import { MadeFile } from '@/ui/MadeFile';
import { PrintButton } from '@/ui/PrintButton';

const FIGURE = clsx(
  'px-1.5 py-0.75 border-b-1 border-rule',
  'text-right leading-tight whitespace-nowrap',
  'print:px-1.25 print:py-0.5',
);

const when = (at: string) => format(new Date(at), 'd MMM yyyy, HH:mm');

export function Report({ number }: { number: number }) {
  const { job, shop, identity, error } = useJob(number);
  const result = useQuery({
    queryKey: ['report', number, JSON.stringify([job, shop?.settings])],
    queryFn: () => engine().report(job!, shop!.settings),
    enabled: job !== undefined && shop !== undefined,
    staleTime: Infinity,
  });
  if (error && !job) return <p role="alert">{error.message}</p>;
  if (result.error)
    return (
      <p role="alert">The report could not be computed: {(result.error as Error).message}. Reload to try again.</p>
    );
  if (!job || !shop || !result.data)
    return (
      <p className="boot" role="status">
        Writing the report of job {number} …
      </p>
    );
  return (
    <main className="report max-w-215 mx-auto p-4 print:max-w-none print:p-0 print:text-small-print max-phone:p-2">
      <div className="no-print flex flex-wrap gap-2 pb-3">
        <Link className="btn" href={`/jobs/${number}/${job.status === 'done' ? 'prove' : 'readings'}`}>
          Back to the job
        </Link>
        <Link className="btn" href="/">
          All jobs
        </Link>
        <Link className="btn" href={`/jobs/${number}/card`}>
          Owner’s card
        </Link>
        <Link className="btn" href={`/jobs/${number}/wiring`}>
          Wiring
        </Link>
        <MadeFile href={`/api/jobs/${number}/report.pdf`}>PDF</MadeFile>
        <PrintButton />
      </div>
      <Page data={result.data} shop={shop} identity={identity} />
    </main>
  );
}

function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="print:text-note">{title}</h2>
      {children}
    </section>
  );
}

function Page({ data, shop, identity }: { data: ReportData; shop: Shop; identity: Identity }) {
  const { verdict, estimate, approval, repair } = data;
  const whose = [identity.customer, identity.plate, identity.make, identity.odometer].filter((x) => x);
  return (
    <article
      className={clsx(
        'grid gap-2.75',
        'px-6.5 py-5.5 border-2 border-ink rounded bg-card',
        'max-phone:p-3 max-phone:overflow-x-auto print:gap-1.5 print:p-0 print:border-0 print:bg-white',
      )}
    >
      <header className="flex justify-between gap-4 pb-2 border-b-2 border-ink print:pb-1 max-phone:block">
        <div>
          <h1 className="font-cond font-bold text-display leading-none print:text-title">
            Job {data.job}, {data.rig}
          </h1>
          <p>
            {data.kind}. Taken in {when(data.takenIn)}.
            {data.cameBack &&
              ` Came back from job ${data.cameBack.job}${data.cameBack.warranty ? ', under warranty' : ''}.`}
          </p>
          {whose.length > 0 && <p>{whose.join(' · ')}</p>}
        </div>
        <p className="shop text-right max-phone:text-left">
          <b>{shop.name}</b>
          <br />
          Report of {format(new Date(), 'd MMM yyyy')}
        </p>
      </header>
      <p
        className={clsx(
          'justify-self-start',
          'px-2.5 py-1.25 border-3 border-current rounded',
          'font-cond font-bold text-head',
          'is-good:text-ok print:px-2 print:py-0.75 print:text-lead',
          `outcome ${data.outcome.good ? 'good' : ''}`,
        )}
      >
        {data.outcome.words}
      </p>
      <Section title="Complaint">
        <p>
          {data.complaint} {data.intake.length > 0 && <span className="quiet">{data.intake.join('; ')}.</span>}
        </p>
      </Section>
      <Section title="What was wrong">
        {verdict ? (
          <p>
            <b>{verdict.name}.</b> {verdict.shows && `It shows when ${verdict.shows}.`} {verdict.confidence} when
            declared by {verdict.by}, {when(verdict.at)}
            {verdict.settled
              ? '; no further test was worth its minutes.'
              : '; the technician decided with questions still open.'}
          </p>
        ) : (
          <p>No verdict yet.</p>
        )}
        {data.designed.map((d) => (
          <p key={d}>{d}</p>
        ))}
      </Section>
      {(data.readings.length > 0 || data.seen.length > 0) && (
        <Section title="How it was shown">
          {data.readings.length > 0 && (
            <table className="w-full text-fine print:text-small-print">
              <thead>
                <tr>
                  <th className="print:px-1.25 print:py-0.5">Probe</th>
                  <th className="print:px-1.25 print:py-0.5">Rig was</th>
                  <th className="text-right whitespace-nowrap print:px-1.25 print:py-0.5">Reading</th>
                  <th className="text-right whitespace-nowrap print:px-1.25 print:py-0.5">Healthy rig</th>
                  <th className="print:px-1.25 print:py-0.5">Says</th>
                </tr>
              </thead>
              <tbody>
                {data.readings.map((l, i) => (
                  <tr key={i}>
                    <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                      <b>{l.label}</b> {l.name}
                    </td>
                    <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                      {l.state}
                    </td>
                    <td className={FIGURE}>
                      {l.judged && <Sign verdict={l.judged} size={13} />} {l.reading}
                    </td>
                    <td className={FIGURE}>{l.healthy}</td>
                    <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                      {l.says}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {data.seen.map((s) => (
            <p key={s.ask}>
              {s.ask}: <b>{s.answer}</b>.
            </p>
          ))}
          {data.meters.length > 0 && <p className="quiet">Measured with {data.meters.join('; ')}.</p>}
        </Section>
      )}
      {data.choice && (
        <Section title="What was picked">
          <p>
            <b>{data.choice.name}.</b> {data.choice.reasons}
          </p>
        </Section>
      )}
      {(estimate ?? approval) && (
        <Section title="Estimate and approval">
          <p>
            {estimate && (
              <>
                {showRange(...estimate.total, shop.settings.currency)}: labor{' '}
                {showRange(...estimate.labour, shop.settings.currency)} for {estimate.minutes[0]} to{' '}
                {estimate.minutes[1]} min, parts {showRange(...estimate.parts, shop.settings.currency)}.{' '}
              </>
            )}
            {approval
              ? `Approved up to ${showMoney(approval.upTo, approval.currency)} by ` +
                `${approval.who}, ${howWords(approval.how)}, ${when(approval.at)}.`
              : 'Not yet approved.'}
          </p>
        </Section>
      )}
      {repair && (
        <Section title="What was done">
          <p>
            {repair.did}{' '}
            <span className="quiet">
              {repair.by}, {when(repair.at)}.
            </span>
          </p>
        </Section>
      )}
      {data.proofs.length > 0 && (
        <Section title={data.outcome.good ? 'It is right now' : `Proof after the ${data.made ?? 'repair'}`}>
          <table className="w-full text-fine print:text-small-print">
            <thead>
              <tr>
                <th className="print:px-1.25 print:py-0.5">Probe</th>
                <th className="print:px-1.25 print:py-0.5">Rig was</th>
                <th className="text-right whitespace-nowrap print:px-1.25 print:py-0.5">Before</th>
                <th className="text-right whitespace-nowrap print:px-1.25 print:py-0.5">After</th>
                <th className="text-right whitespace-nowrap print:px-1.25 print:py-0.5">Healthy rig</th>
                <th className="print:px-1.25 print:py-0.5">Why</th>
              </tr>
            </thead>
            <tbody>
              {data.proofs.map((p, i) => (
                <tr key={i}>
                  <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                    <b>{p.label}</b> {p.name}
                  </td>
                  <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                    {p.state}
                  </td>
                  <td className={FIGURE}>{p.before}</td>
                  <td className={FIGURE}>
                    {p.judged && <Sign verdict={p.judged} size={13} />} {p.after}
                  </td>
                  <td className={FIGURE}>{p.healthy}</td>
                  <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                    {p.why}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Section>
      )}
      {data.checks.length > 0 && (
        <Section title="Checks">
          {data.checks.map((c) => (
            <p key={c.name}>
              {c.name}: <b>{c.result}</b>
              {c.values && `, ${c.values}`}. {c.note}
            </p>
          ))}
        </Section>
      )}
      <footer className="grid gap-3.5 text-fine text-ink-2 print:gap-2 print:text-small-print">
        {data.signed && (
          <p>
            <b>Signed:</b> “{data.signed.words}” {data.signed.by}, {when(data.signed.at)}
            {data.signed.elsewhere ? ', as the file says that it came with' : ''}.
          </p>
        )}
        {data.reopened.map((r) => (
          <p key={r.at}>
            Opened again by {r.by}, {when(r.at)}: {r.reason}
          </p>
        ))}
        <p>
          {REPORT_FOOT} Rules named where this shop works, from memory, check the edition: {data.rules}.
        </p>
        {!data.signed && (
          <p className="signline grid gap-6 print:mt-3.5">
            <span className="pt-0.75 border-t border-ink">Technician</span>
            <span className="pt-0.75 border-t border-ink">Date</span>
          </p>
        )}
      </footer>
    </article>
  );
}
