/** The report on paper: the same data as the page, set by the PDF library, fonts of our own. */
import { Document, Font, Page, renderToBuffer, StyleSheet, Text, View } from '@react-pdf/renderer';
import { format } from 'date-fns';
import { join } from 'node:path';
import type { ReactNode } from 'react';
import { reportOf, type ReportData } from '../core/formats/report';
import { REPORT_FOOT } from '../core/formats/reportFoot';
import { showMoney, showRange } from '../core/units/money';
import type { JobSnapshot } from './jobs';

const font = (family: string, file: string) => join(process.cwd(), 'node_modules/@fontsource', family, 'files', file);
let ready = false;
function fonts(): void {
  if (ready) return;
  ready = true;
  Font.register({
    family: 'Barlow',
    fonts: [
      { src: font('barlow', 'barlow-latin-400-normal.woff'), fontWeight: 400 },
      { src: font('barlow', 'barlow-latin-600-normal.woff'), fontWeight: 600 },
    ],
  });
  Font.register({ family: 'Barlow Condensed', src: font('barlow-condensed', 'barlow-condensed-latin-700-normal.woff'), fontWeight: 700 });
  Font.registerHyphenationCallback((word) => [word]);
}

/** Barlow has no Greek capitals and no arrows: what a report may hold is put in letters. */
const plain = (text: string): string => text.replace(/m\u03a9/g, 'milliohm').replace(/\u03a9/g, 'ohm').replace(/\u0394/g, 'delta ').replace(/[\u2190-\u21ff]/g, 'to');

const INK = '#14202B';
const RULE = '#B9AF97';
const s = StyleSheet.create({
  page: { fontFamily: 'Barlow', fontSize: 8.6, color: INK, paddingVertical: 34, paddingHorizontal: 40, lineHeight: 1.25 },
  head: { flexDirection: 'row', justifyContent: 'space-between', borderBottomWidth: 1.6, borderColor: INK, paddingBottom: 6 },
  h1: { fontFamily: 'Barlow Condensed', fontSize: 20, lineHeight: 1.1 },
  h2: { fontFamily: 'Barlow Condensed', fontSize: 11.5, lineHeight: 1.2, marginTop: 8, marginBottom: 2, paddingBottom: 2.5, borderBottomWidth: 0.8, borderColor: INK },
  outcome: { fontFamily: 'Barlow Condensed', fontSize: 13, marginTop: 8, borderWidth: 1.6, borderColor: INK, padding: 5 },
  strong: { fontWeight: 600 },
  row: { flexDirection: 'row', borderBottomWidth: 0.5, borderColor: RULE, paddingVertical: 1.6 },
  headRow: { flexDirection: 'row', borderBottomWidth: 0.8, borderColor: INK, paddingVertical: 1.6 },
  foot: { marginTop: 12, fontSize: 7.4, color: '#44505A' },
  sign: { flexDirection: 'row', gap: 24, marginTop: 26 },
  line: { borderTopWidth: 0.8, borderColor: INK, width: 180, paddingTop: 2 },
});

const when = (at: string) => `${format(new Date(at), 'd MMM yyyy, HH:mm')}`;
const MARK = { ok: 'in band', low: 'low', high: 'high' } as const;

function Table({ widths, head, rows }: { widths: readonly number[]; head: readonly string[]; rows: readonly (readonly string[])[] }) {
  const cells = (list: readonly string[], strong: boolean) =>
    list.map((text, i) => (
      <Text key={i} style={[{ width: `${widths[i]}%`, paddingRight: 4 }, strong ? s.strong : {}]}>
        {plain(text)}
      </Text>
    ));
  return (
    <View>
      <View style={s.headRow}>{cells(head, true)}</View>
      {rows.map((r, i) => (
        <View key={i} style={s.row} wrap={false}>
          {cells(r, false)}
        </View>
      ))}
    </View>
  );
}

function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View>
      <Text style={s.h2}>{title}</Text>
      {children}
    </View>
  );
}

/** The PDF's bytes. */
export async function reportPdf({ job, shop, identity }: Pick<JobSnapshot, 'job' | 'shop' | 'identity'>, now: Date): Promise<Buffer> {
  fonts();
  const data = reportOf(job, shop.settings);
  return renderToBuffer(<Paper data={data} shop={shop} identity={identity} now={now} />);
}

function Paper({ data, shop, identity, now }: { data: ReportData; shop: JobSnapshot['shop']; identity: JobSnapshot['identity']; now: Date }) {
  const { verdict, estimate, approval, repair } = data;
  const { currency } = shop.settings;
  const whose = [identity.customer, identity.plate, identity.make, identity.odometer].filter((x): x is string => Boolean(x));
  const size = shop.settings.jurisdiction === 'us' || shop.settings.jurisdiction === 'ca' ? 'LETTER' : 'A4';
  return (
    <Document title={`Job ${data.job}, ${data.rig}`} author={shop.name} creator="Surrik" producer="Surrik">
      <Page size={size} style={s.page}>
        <View style={s.head}>
          <View>
            <Text style={s.h1}>{plain(`Job ${data.job}, ${data.rig}`)}</Text>
            <Text>{plain(`${data.kind}. Taken in ${when(data.takenIn)}.${data.cameBack ? ` Came back from job ${data.cameBack.job}${data.cameBack.warranty ? ', under warranty' : ''}.` : ''}`)}</Text>
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
                ? `${verdict.name}. ${verdict.shows ? `It shows when ${verdict.shows}. ` : ''}${verdict.confidence} when declared by ${verdict.by}, ${when(verdict.at)}${verdict.settled ? '; no further test was worth its minutes.' : '; the technician decided with questions still open.'}`
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
              rows={data.readings.map((r) => [`${r.label} ${r.name}`, r.state, `${r.reading}${r.judged ? `, ${MARK[r.judged]}` : ''}`, r.healthy, r.says])}
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
                  estimate && `${showRange(...estimate.total, currency)}: labour ${showRange(...estimate.labour, currency)} for ${estimate.minutes[0]} to ${estimate.minutes[1]} min, parts ${showRange(...estimate.parts, currency)}.`,
                  approval ? `Approved up to ${showMoney(approval.upTo, approval.currency)} by ${approval.who}, ${approval.how.replace('-', ' ')}, ${when(approval.at)}.` : 'Not yet approved.',
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
          <Section title={data.outcome.good ? 'It is right now' : 'Proof after the repair'}>
            <Table
              widths={[25, 17, 10, 16, 14, 18]}
              head={['Probe', 'Rig was', 'Before', 'After', 'Healthy rig', 'Why']}
              rows={data.proofs.map((p) => [`${p.label} ${p.name}`, p.state, p.before, `${p.after}${p.judged ? `, ${MARK[p.judged]}` : ''}`, p.healthy, p.why])}
            />
          </Section>
        )}
        <Text style={s.foot}>{plain(`${REPORT_FOOT} Rules named where this shop works, from memory, check the edition: ${data.rules}.`)}</Text>
        <View style={s.sign} wrap={false}>
          <Text style={s.line}>Technician</Text>
          <Text style={s.line}>Date</Text>
        </View>
      </Page>
    </Document>
  );
}
