/** The report on paper: the same data as the page, set by the PDF library, fonts of our own. */
import { Document, Page, renderToBuffer, Text, View } from '@react-pdf/renderer';
import { format } from 'date-fns';
import { reportOf, type ReportData } from '../../core/documents/report';
import { REPORT_FOOT } from '../../core/documents/reportFoot';
import { showMoney, showRange } from '../../core/units/money';
import type { JobSnapshot } from '../job/snapshot';
import { fonts, MARK, plain, s, Section, sheetOf, Table, when } from './layout';

/** The PDF's bytes. */
export async function reportPdf(
  { job, shop, identity }: Pick<JobSnapshot, 'job' | 'shop' | 'identity'>,
  now: Date,
): Promise<Buffer> {
  fonts();
  const data = reportOf(job, shop.settings);
  return renderToBuffer(<Paper data={data} shop={shop} identity={identity} now={now} />);
}

function Paper({
  data,
  shop,
  identity,
  now,
}: {
  data: ReportData;
  shop: JobSnapshot['shop'];
  identity: JobSnapshot['identity'];
  now: Date;
}) {
  const { verdict, estimate, approval, repair } = data;
  const { currency } = shop.settings;
  const whose = [identity.customer, identity.plate, identity.make, identity.odometer].filter((x): x is string =>
    Boolean(x),
  );
  return (
    <Document title={`Job ${data.job}, ${data.rig}`} author={shop.name} creator="Surrik" producer="Surrik">
      <Page size={sheetOf(shop.settings)} style={s.page}>
        <View style={s.head}>
          <View>
            <Text style={s.h1}>{plain(`Job ${data.job}, ${data.rig}`)}</Text>
            <Text>
              {plain(
                `${data.kind}. Taken in ${when(data.takenIn)}.` +
                  (data.cameBack
                    ? ` Came back from job ${data.cameBack.job}${data.cameBack.warranty ? ', under warranty' : ''}.`
                    : ''),
              )}
            </Text>
            {whose.length > 0 && <Text>{plain(whose.join(', '))}</Text>}
          </View>
          <View>
            <Text style={s.strong}>{shop.name}</Text>
            <Text>Report of {format(now, 'd MMM yyyy')}</Text>
          </View>
        </View>
        <Text style={s.outcome}>{plain(data.outcome.words)}</Text>
        <Section title="Complaint">
          <Text>{plain(`${data.complaint}${data.intake.length > 0 ? ` ${data.intake.join('; ')}.` : ''}`)}</Text>
        </Section>
        <Section title="What was wrong">
          <Text>
            {plain(
              verdict
                ? `${verdict.name}. ${verdict.shows ? `It shows when ${verdict.shows}. ` : ''}${verdict.confidence} ` +
                    `when declared by ${verdict.by}, ${when(verdict.at)}` +
                    (verdict.settled
                      ? '; no further test was worth its minutes.'
                      : '; the technician decided with questions still open.')
                : 'No verdict yet.',
            )}
          </Text>
          {data.designed.map((d) => (
            <Text key={d}>{plain(d)}</Text>
          ))}
        </Section>
        {data.readings.length > 0 && (
          <Section title="How it was shown">
            <Table
              widths={[30, 20, 18, 17, 15]}
              head={['Probe', 'Rig was', 'Reading', 'Healthy rig', 'Says']}
              rows={data.readings.map((r) => [
                `${r.label} ${r.name}`,
                r.state,
                `${r.reading}${r.judged ? `, ${MARK[r.judged]}` : ''}`,
                r.healthy,
                r.says,
              ])}
            />
            {data.meters.length > 0 && <Text>{plain(`Measured with ${data.meters.join('; ')}.`)}</Text>}
          </Section>
        )}
        {data.seen.length > 0 && (
          <Section title="Seen, heard, tried">
            {data.seen.map((x) => (
              <Text key={x.ask}>{plain(`${x.ask}: ${x.answer}.`)}</Text>
            ))}
          </Section>
        )}
        {data.choice && (
          <Section title="What was picked">
            <Text>{plain(`${data.choice.name}. ${data.choice.reasons}`)}</Text>
          </Section>
        )}
        {(estimate ?? approval) && (
          <Section title="Estimate and approval">
            <Text>
              {plain(
                [
                  estimate &&
                    `${showRange(...estimate.total, currency)}: labor ` +
                      `${showRange(...estimate.labour, currency)} for ${estimate.minutes[0]} to ` +
                      `${estimate.minutes[1]} min, parts ${showRange(...estimate.parts, currency)}.`,
                  approval
                    ? `Approved up to ${showMoney(approval.upTo, approval.currency)} by ` +
                      `${approval.who}, ${approval.how.replace('-', ' ')}, ${when(approval.at)}.`
                    : 'Not yet approved.',
                ]
                  .filter(Boolean)
                  .join(' '),
              )}
            </Text>
          </Section>
        )}
        {repair && (
          <Section title="What was done">
            <Text>{plain(`${repair.did} ${repair.by}, ${when(repair.at)}.`)}</Text>
          </Section>
        )}
        {data.proofs.length > 0 && (
          <Section title={data.outcome.good ? 'It is right now' : `Proof after the ${data.made ?? 'repair'}`}>
            <Table
              widths={[25, 17, 10, 16, 14, 18]}
              head={['Probe', 'Rig was', 'Before', 'After', 'Healthy rig', 'Why']}
              rows={data.proofs.map((p) => [
                `${p.label} ${p.name}`,
                p.state,
                p.before,
                `${p.after}${p.judged ? `, ${MARK[p.judged]}` : ''}`,
                p.healthy,
                p.why,
              ])}
            />
          </Section>
        )}
        {data.checks.length > 0 && (
          <Section title="Checks">
            {data.checks.map((c) => (
              <Text key={c.name}>
                {plain(`${c.name}: ${c.result}${c.values ? `, ${c.values}` : ''}. ${c.note ?? ''}`)}
              </Text>
            ))}
          </Section>
        )}
        {data.signed && (
          <Text style={{ marginTop: 8 }}>
            {plain(
              `Signed: "${data.signed.words}" ${data.signed.by}, ${when(data.signed.at)}` +
                (data.signed.elsewhere ? ', as the file says that it came with.' : '.'),
            )}
          </Text>
        )}
        {data.reopened.map((r) => (
          <Text key={r.at}>{plain(`Opened again by ${r.by}, ${when(r.at)}: ${r.reason}`)}</Text>
        ))}
        <Text style={s.foot}>
          {plain(`${REPORT_FOOT} Rules named where this shop works, from memory, check the edition: ${data.rules}.`)}
        </Text>
        <View style={s.sign} wrap={false}>
          <Text style={s.line}>Technician</Text>
          <Text style={s.line}>Date</Text>
        </View>
      </Page>
    </Document>
  );
}
