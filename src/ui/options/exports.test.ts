/** What leaves the comparison as a file: readable by a table program, and without the rigs themselves. */
import Papa from 'papaparse';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { exampleJob } from '../../../tests/answers';
import { jobCandidates, jobScenarios } from '../../core/jobAnswers/options';
import { compare, type Comparison } from '../../core/plan/compare';
import { exportCsv, exportJson } from './exports';

let comparison: Comparison;
const saved: { name: string; type: string; text: Promise<string> }[] = [];
beforeAll(() => {
  const job = exampleJob('heron');
  comparison = compare(jobCandidates(job).slice(0, 2), jobScenarios(job), { labourPerHour: 130, partsTimes: 1.3 });
  let blob: Blob | undefined;
  vi.stubGlobal('URL', {
    createObjectURL: (b: Blob) => ((blob = b), 'blob:x'),
    revokeObjectURL: () => undefined,
  });
  vi.stubGlobal('document', {
    createElement: () => ({
      download: '',
      click() {
        saved.push({ name: (this as { download: string }).download, type: blob!.type, text: blob!.text() });
      },
    }),
  });
  return () => vi.unstubAllGlobals();
});

describe('files of a comparison', () => {
  it('hours as a table: a row for every point, a column for every series, numbers throughout', async () => {
    const result = comparison.rows[0]!.results[0]!;
    exportCsv('leave', result);
    const file = saved.at(-1)!;
    expect([file.name, file.type]).toEqual(['leave.csv', 'text/csv;charset=utf-8']);
    const { data, errors } = Papa.parse<Record<string, string>>((await file.text).trim(), { header: true });
    expect(errors).toEqual([]);
    expect(data.length).toBe(result.t.length);
    expect(Object.keys(data[0]!).length).toBe(result.series.length + 1);
    for (const row of data)
      for (const cell of Object.values(row)) expect(Number.isFinite(Number(cell)), cell).toBe(true);
  });

  it('the whole as JSON: every option with its outcome, no rig document, series as plain lists', async () => {
    exportJson('comparison', comparison);
    const file = saved.at(-1)!;
    const read = JSON.parse(await file.text) as {
      schemaVersion: number;
      rows: { candidate: object; results: { t: unknown }[] }[];
    };
    expect(read.schemaVersion).toBe(1);
    expect(read.rows.length).toBe(comparison.rows.length);
    for (const row of read.rows) {
      expect('rig' in row.candidate).toBe(false);
      expect(Array.isArray(row.results[0]!.t)).toBe(true);
    }
    expect(await file.text).not.toMatch(/NaN|undefined/);
  });
});
