import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { buildPlan } from '../plan/build/build';
import { candidatesOf } from '../plan/candidates';
import { bomCsv, cutListCsv } from './buildCsv';
import { csvRows } from './csv';
import { currentRevision } from '../job/job';

const rows = (text: string): string[][] => Papa.parse<string[]>(text, { skipEmptyLines: true, delimiter: ',' }).data;

describe('rows of a table', () => {
  it('come back through another reader as they were, but for an apostrophe before what a spreadsheet would run', () => {
    const text = fc.oneof(
      fc.string(),
      fc.constantFrom('=1+1', '+1', '-1', '@SUM(A1)', '\t=1', 'a,b', 'say "so"', 'two\r\nlines', "'quoted"),
    );
    fc.assert(
      fc.property(fc.array(fc.array(text, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 6 }), (table) => {
        const width = table[0]!.length;
        const square = table.map((r) => Array.from({ length: width }, (_, i) => r[i] ?? ''));
        const back = Papa.parse<string[]>(csvRows(square), { delimiter: ',', newline: '\r\n' }).data.slice(0, -1);
        expect(back).toEqual(square.map((r) => r.map((c) => (/^[=+\-@\t\r]/.test(c) ? `'${c}` : c))));
        for (const cell of back.flat()) expect(cell).not.toMatch(/^[=+\-@\t\r]/);
      }),
    );
  });

  it('keep numbers as numbers, below nought too', () => {
    expect(csvRows([[-12.5, 'a']])).toBe('-12.5,a\r\n');
  });
});

describe('what is to be ordered and cut', () => {
  const plans = demoJobs(new Date('2026-11-24T16:00:00Z')).flatMap((job) => {
    const rig = currentRevision(job).doc;
    return candidatesOf(rig)
      .slice(0, 4)
      .map((c) => buildPlan(rig, c.rig))
      .filter((p) => p.parts.length > 0);
  });

  it('is a row a piece, of every build of every demo rig', () => {
    expect(plans.length).toBeGreaterThan(10);
    for (const plan of plans) {
      const [head, ...parts] = rows(bomCsv(plan, { [plan.parts[0]!.id]: 'ordered' }));
      expect(head).toEqual(['what', 'needs', 'quantity', 'unit', 'state']);
      expect(parts.map((r) => [Number(r[2]), r[3]])).toEqual(plan.parts.map((p) => [p.quantity, p.unit]));
      expect(parts.map((r) => r[4])).toEqual(plan.parts.map((_, i) => (i === 0 ? 'ordered' : 'to get')));
      const [names, ...cuts] = rows(cutListCsv(plan));
      expect(cuts.every((r) => r.length === names!.length)).toBe(true);
      // Cable that is ordered is at least what is cut of it.
      const cut = cuts.reduce((sum, r) => sum + Number(r[3]), 0);
      const ordered = plan.parts.filter((p) => p.group === 'cable').reduce((sum, p) => sum + p.quantity, 0);
      expect(ordered).toBeGreaterThanOrEqual(cut);
    }
  });
});
