/** The wiring diagram on paper: the drawing on a sheet laid across, the schedule of wires and grounds behind it. */
import { Circle, Document, G, Page, Polyline, Rect, renderToBuffer, Svg, Text, View } from '@react-pdf/renderer';
import { format } from 'date-fns';
import type { Shape } from '../../core/documents/wiring/drawing';
import { wiringOf } from '../../core/documents/wiring/sheet';
import type { Revision } from '../../core/job/job';
import type { Shop } from '../../core/shop/shop';
import { rigInWords } from '../../core/rig/inWords';
import { fonts, plain, s, Section, sheetOf, Table } from './layout';

function Drawn({ shape: x }: { shape: Shape }) {
  switch (x.kind) {
    case 'line':
      return (
        <Polyline
          points={x.points.map((p) => p.join(',')).join(' ')}
          fill="none"
          stroke={x.white ? '#ffffff' : '#000000'}
          strokeWidth={x.width}
          strokeLinejoin="round"
          {...(x.dash ? { strokeDasharray: x.dash.join(',') } : {})}
        />
      );
    case 'box':
      return (
        <Rect
          x={x.x}
          y={x.y}
          width={x.w}
          height={x.h}
          rx={x.round ?? 0}
          fill={x.white ? '#ffffff' : 'none'}
          {...(x.width > 0 ? { stroke: '#000000', strokeWidth: x.width } : {})}
        />
      );
    case 'dot':
      return <Circle cx={x.x} cy={x.y} r={x.r} fill="#000000" />;
    case 'text': {
      const text = (
        <Text
          x={x.x}
          y={x.y}
          textAnchor={x.anchor}
          fill="#000000"
          style={{ fontSize: x.size, fontFamily: 'Barlow Condensed', fontWeight: x.bold ? 700 : 500 }}
        >
          {plain(x.text)}
        </Text>
      );
      return x.up ? <G transform={`rotate(-90, ${x.x}, ${x.y})`}>{text}</G> : text;
    }
  }
}

/** The PDF's bytes: two sheets. */
export async function wiringPdf(job: number, revision: Revision, shop: Shop, now: Date): Promise<Buffer> {
  fonts();
  const { vocabulary } = shop.settings;
  const { drawing, wires, grounds } = wiringOf(rigInWords(vocabulary, revision.doc), shop.settings);
  const size = sheetOf(shop.settings);
  const foot = plain(
    `Job ${job}, ${revision.kind}, drawn ${format(now, 'd MMM yyyy')}. ${shop.name}. ` +
      `Local codes, the maker\u2019s guide and licensed practice come first.`,
  );
  // Room of a sheet laid across, in points, its margins and its foot taken off.
  const room = size === 'A4' ? [786, 520] : [736, 536];
  const scale = Math.min(room[0]! / drawing.width, room[1]! / drawing.height);
  return renderToBuffer(
    <Document title={drawing.title} author={shop.name} creator="Surrik" producer="Surrik">
      <Page size={size} orientation="landscape" style={{ padding: 28, fontFamily: 'Barlow', fontSize: 8 }}>
        <Svg
          width={drawing.width * scale}
          height={drawing.height * scale}
          viewBox={`0 0 ${drawing.width} ${drawing.height}`}
        >
          {drawing.shapes.map((shape, i) => (
            <Drawn key={i} shape={shape} />
          ))}
        </Svg>
        <Text style={{ position: 'absolute', bottom: 18, left: 28, fontSize: 8 }}>{foot}</Text>
      </Page>
      <Page size={size} style={s.page}>
        <Text style={s.h1}>{plain(drawing.title)}</Text>
        <Section title="Wires">
          <Table
            widths={[7, 27, 9, 24, 24, 9]}
            head={['Wire', 'Name', 'Gauge', 'From', 'To', 'Length']}
            rows={wires.map((w) => [
              w.wire,
              `${w.name}${w.use === 'feed' ? '' : `, ${w.use}`}`,
              w.gauge,
              w.from,
              w.to,
              w.length,
            ])}
          />
        </Section>
        <Section title="Grounds">
          <Table
            widths={[8, 52, 40]}
            head={['', 'Point', 'Place']}
            rows={grounds.map((g) => [g.ground, g.name, g.place])}
          />
        </Section>
        <View fixed style={s.foot}>
          <Text>{foot}</Text>
        </View>
      </Page>
    </Document>,
  );
}
