'use client';
/** One page that says what was wrong, how it was shown, and that it is right now. */
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

const when = (at: string) => format(new Date(at), 'd MMM yyyy, HH:mm');

export function Report({ number }: { number: number }) {
  const { job, shop, identity, error } = useJob(number);
  const result = useQuery({
    queryKey: ['report', number, JSON.stringify([job, shop?.settings])],
    queryFn: () => engine().report(job!, shop!.settings),
    enabled: job !== undefined && shop !== undefined,
    staleTime: Infinity,
  });
  if (error && !job)
    return (
      <p className="boot" role="alert">
        {error.message}
      </p>
    );
  if (result.error)
    return (
      <p className="boot" role="alert">
        The report could not be computed: {(result.error as Error).message}. Reload to try again.
      </p>
    );
  if (!job || !shop || !result.data)
    return (
      <p className="boot" role="status">
        Writing the report of job {number} …
      </p>
    );
  return (
    <main className="report">
      <div className="report-bar no-print">
        <Link className="bx" href={`/jobs/${number}/${job.status === 'done' ? 'prove' : 'readings'}`}>
          Back to the job
        </Link>
        <Link className="bx" href="/">
          All jobs
        </Link>
        <Link className="bx" href={`/jobs/${number}/card`}>
          Owner’s card
        </Link>
        <Link className="bx" href={`/jobs/${number}/wiring`}>
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
      <h2>{title}</h2>
      {children}
    </section>
  );
}

function Page({ data, shop, identity }: { data: ReportData; shop: Shop; identity: Identity }) {
  const { verdict, estimate, approval, repair } = data;
  const whose = [identity.customer, identity.plate, identity.make, identity.odometer].filter((x) => x);
  return (
    <article>
      <header>
        <div>
          <h1>
            Job {data.job}, {data.rig}
          </h1>
          <p>
            {data.kind}. Taken in {when(data.takenIn)}.
            {data.cameBack &&
              ` Came back from job ${data.cameBack.job}${data.cameBack.warranty ? ', under warranty' : ''}.`}
          </p>
          {whose.length > 0 && <p>{whose.join(' · ')}</p>}
        </div>
        <p className="shop">
          <b>{shop.name}</b>
          <br />
          Report of {format(new Date(), 'd MMM yyyy')}
        </p>
      </header>
      <p className={`outcome ${data.outcome.good ? 'good' : ''}`}>{data.outcome.words}</p>
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
            <table>
              <thead>
                <tr>
                  <th>Probe</th>
                  <th>Rig was</th>
                  <th className="num">Reading</th>
                  <th className="num">Healthy rig</th>
                  <th>Says</th>
                </tr>
              </thead>
              <tbody>
                {data.readings.map((l, i) => (
                  <tr key={i}>
                    <td>
                      <b>{l.label}</b> {l.name}
                    </td>
                    <td>{l.state}</td>
                    <td className="num">
                      {l.judged && <Sign verdict={l.judged} size={13} />} {l.reading}
                    </td>
                    <td className="num">{l.healthy}</td>
                    <td>{l.says}</td>
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
          <table>
            <thead>
              <tr>
                <th>Probe</th>
                <th>Rig was</th>
                <th className="num">Before</th>
                <th className="num">After</th>
                <th className="num">Healthy rig</th>
                <th>Why</th>
              </tr>
            </thead>
            <tbody>
              {data.proofs.map((p, i) => (
                <tr key={i}>
                  <td>
                    <b>{p.label}</b> {p.name}
                  </td>
                  <td>{p.state}</td>
                  <td className="num">{p.before}</td>
                  <td className="num">
                    {p.judged && <Sign verdict={p.judged} size={13} />} {p.after}
                  </td>
                  <td className="num">{p.healthy}</td>
                  <td>{p.why}</td>
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
      <footer>
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
          <p className="signline">
            <span>Technician</span>
            <span>Date</span>
          </p>
        )}
      </footer>
    </article>
  );
}
