/** What every PDF of ours is made of: fonts, styles, sections, tables. */
import { Font, StyleSheet, Text, View } from '@react-pdf/renderer';
import { format } from 'date-fns';
import { join } from 'node:path';
import type { ReactNode } from 'react';
import type { Settings } from '../../core/shop/shop';

const font = (family: string, file: string) => join(process.cwd(), 'node_modules/@fontsource', family, 'files', file);
let ready = false;
/** Registers the fonts once. */
export function fonts(): void {
  if (ready) return;
  ready = true;
  Font.register({
    family: 'Barlow',
    fonts: [
      { src: font('barlow', 'barlow-latin-400-normal.woff'), fontWeight: 400 },
      { src: font('barlow', 'barlow-latin-600-normal.woff'), fontWeight: 600 },
    ],
  });
  Font.register({
    family: 'Barlow Condensed',
    fonts: [
      { src: font('barlow-condensed', 'barlow-condensed-latin-500-normal.woff'), fontWeight: 500 },
      { src: font('barlow-condensed', 'barlow-condensed-latin-700-normal.woff'), fontWeight: 700 },
    ],
  });
  Font.registerHyphenationCallback((word) => [word]);
}

/** Barlow has no Greek capitals and no arrows: what a report may hold is put in letters. */
export const plain = (text: string): string =>
  text
    .replace(/m\u03a9/g, 'milliohm')
    .replace(/\u03a9/g, 'ohm')
    .replace(/\u0394/g, 'delta ')
    .replace(/[\u2190-\u21ff]/g, 'to');

export const INK = '#14202B';
const RULE = '#B9AF97';
export const s = StyleSheet.create({
  page: {
    fontFamily: 'Barlow',
    fontSize: 8.6,
    color: INK,
    paddingVertical: 34,
    paddingHorizontal: 40,
    lineHeight: 1.25,
  },
  head: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    borderBottomWidth: 1.6,
    borderColor: INK,
    paddingBottom: 6,
  },
  h1: { fontFamily: 'Barlow Condensed', fontSize: 20, lineHeight: 1.1 },
  h2: {
    fontFamily: 'Barlow Condensed',
    fontSize: 11.5,
    lineHeight: 1.2,
    marginTop: 8,
    marginBottom: 2,
    paddingBottom: 2.5,
    borderBottomWidth: 0.8,
    borderColor: INK,
  },
  outcome: {
    fontFamily: 'Barlow Condensed',
    fontSize: 13,
    marginTop: 8,
    borderWidth: 1.6,
    borderColor: INK,
    padding: 5,
  },
  strong: { fontWeight: 600 },
  row: { flexDirection: 'row', borderBottomWidth: 0.5, borderColor: RULE, paddingVertical: 1.6 },
  headRow: { flexDirection: 'row', borderBottomWidth: 0.8, borderColor: INK, paddingVertical: 1.6 },
  foot: { marginTop: 12, fontSize: 7.4, color: '#44505A' },
  sign: { flexDirection: 'row', gap: 24, marginTop: 26 },
  line: { borderTopWidth: 0.8, borderColor: INK, width: 180, paddingTop: 2 },
});

export const when = (at: string) => `${format(new Date(at), 'd MMM yyyy, HH:mm')}`;
export const MARK = { ok: 'in band', low: 'low', high: 'high' } as const;

export function Table({
  widths,
  head,
  rows,
}: {
  widths: readonly number[];
  head: readonly string[];
  rows: readonly (readonly string[])[];
}) {
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

export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View>
      <Text style={s.h2}>{title}</Text>
      {children}
    </View>
  );
}

/** The sheet in the shop's part of the world. */
export const sheetOf = (settings: Settings): 'LETTER' | 'A4' =>
  settings.jurisdiction === 'us' || settings.jurisdiction === 'ca' ? 'LETTER' : 'A4';
