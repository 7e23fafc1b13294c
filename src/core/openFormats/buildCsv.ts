/** Bill of materials and cut list as tables to order and to cut by. */
import type { BuildPlan } from '../plan/build/build';
import { gaugeName } from '../units/wire';
import { csvRows } from './csv';

export const bomCsv = ({ parts }: BuildPlan, ticks: Readonly<Record<string, string>> = {}): string =>
  csvRows([
    ['what', 'needs', 'quantity', 'unit', 'state'],
    ...parts.map((l) => [l.what, l.needs, l.quantity, l.unit, ticks[l.id] ?? 'to get']),
  ]);

export const cutListCsv = ({ cuts }: BuildPlan): string =>
  csvRows([
    [
      'wire',
      'use',
      'gauge',
      'length (m)',
      'end 1',
      'made 1',
      'label 1',
      'end 2',
      'made 2',
      'label 2',
      'heat-shrink (mm)',
    ],
    ...cuts.map((c) => [
      c.name,
      c.use,
      gaugeName(c.gauge),
      c.length,
      ...c.ends.flatMap((e) => [`${e.part}, ${e.terminal}`, e.made, e.label]),
      c.shrink,
    ]),
  ]);
