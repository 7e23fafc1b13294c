/** The owner's card on paper. */
import { Document, Page, renderToBuffer, Text, View } from '@react-pdf/renderer';
import { ownerCard } from '../../core/documents/ownerCard';
import type { JobSnapshot } from '../job/snapshot';
import { fonts, plain, s, Section, sheetOf, Table } from './layout';

function List({ title, items }: { title: string; items: readonly string[] }) {
  if (items.length === 0) return null;
  return (
    <Section title={title}>
      {items.map((x) => (
        <Text key={x} style={{ marginBottom: 1.5 }}>{`•  ${plain(x)}`}</Text>
      ))}
    </Section>
  );
}

/** The PDF's bytes. */
export async function cardPdf({ job, shop }: Pick<JobSnapshot, 'job' | 'shop'>): Promise<Buffer> {
  fonts();
  const card = ownerCard(job, shop.settings);
  return renderToBuffer(
    <Document title={`${card.rig}: your batteries`} author={shop.name} creator="Surrik" producer="Surrik">
      <Page size={sheetOf(shop.settings)} style={{ ...s.page, fontSize: 10 }}>
        <View style={s.head}>
          <View>
            <Text style={s.h1}>{plain(`${card.rig}: your batteries`)}</Text>
            <Text>{plain(card.kind)}</Text>
          </View>
          <View>
            <Text style={s.strong}>{plain(shop.name)}</Text>
            <Text>Job {job.number}</Text>
          </View>
        </View>
        <List title="How it works" items={card.works} />
        <List title="Boost" items={card.boost} />
        {card.lamps.length > 0 && (
          <Section title="Lamps">
            <Table
              widths={[30, 30, 40]}
              head={['Unit', 'Shows', 'Means']}
              rows={card.lamps.map((l) => [l.unit, l.shows, l.means])}
            />
          </Section>
        )}
        <Section title="How long">
          <Table widths={[48, 52]} head={['', '']} rows={card.hours.map((h) => [h.ask, h.answer])} />
          <Text>{plain(card.taken)}</Text>
        </Section>
        <List title="Look for" items={card.look} />
        <List title="Never" items={card.never} />
        <List title="As it is set" items={card.settings} />
        <Text style={s.foot}>
          {plain(
            'Keep this card in the vehicle. Local codes and the vehicle maker’s guide ' +
              'come first; anything that smells, smokes or swells is for the shop.',
          )}
        </Text>
      </Page>
    </Document>,
  );
}
