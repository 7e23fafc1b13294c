/** Verbs about files beside the job: reading a recorder's log, turning one format into another. */
import { readFileSync } from 'node:fs';
import { analyseLog } from '../core/recorderLog/analyse';
import { estimateInWords } from '../core/recorderLog/words';
import { faceOf, HEAD_LENGTH, LOG_LIMIT_BYTES, readLog } from '../core/recorderLog/readLog';
import { LOG_ROLES, roleOf } from '../core/recorderLog/series';
import { CHEMISTRIES } from '../core/parts/chemistry';
import { bomCsv, cutListCsv } from '../core/openFormats/buildCsv';
import { buildOf } from '../core/job/job';
import { buildJob } from '../core/jobAnswers/options';
import { readingsCsv } from '../core/openFormats/readingsCsv';
import { DEFAULT_SETTINGS } from '../core/shop/shop';
import { wiringOf } from '../core/documents/wiring/sheet';
import { svgOf } from '../core/documents/wiring/svg';
import { BadInput, type LogVerb, type Verb } from './verb';

const iso = (seconds: number): string => new Date(seconds * 1000).toISOString();

export const LOG_VERBS: Readonly<Record<string, LogVerb>> = {
  'analyse-log': {
    about: 'what a recorder’s log shows: events, resistances and currents with intervals, in words',
    example: 'analyse-log examples/heron-trip.csv --nominal 12 --chemistry flooded',
    options:
      `  --nominal 12|24|48 (12)\n  --chemistry ${CHEMISTRIES.map((c) => c.id).join('|')} (flooded)\n ` +
      ` --zone NAME (UTC): of times that do not say their own\n  --map ROLE=COLUMN,… : ` +
      `${LOG_ROLES.map((r) => r.id).join(', ')}; COLUMN is a name of the header or a number from 1`,
    run(file, options) {
      const nominal = options['nominal'] ?? '12';
      if (!['12', '24', '48'].includes(nominal)) throw new BadInput('--nominal', nominal, 'one of 12, 24, 48');
      const chemistry = options['chemistry'] ?? 'flooded';
      if (!CHEMISTRIES.some((c) => c.id === chemistry))
        throw new BadInput('--chemistry', chemistry, `one of ${CHEMISTRIES.map((c) => c.id).join(', ')}`);
      const zone = options['zone'] ?? 'UTC';
      let text: string;
      try {
        text = readFileSync(file === '-' ? 0 : file, 'utf8');
      } catch (e) {
        throw new BadInput(
          'LOG',
          `${file}: ${(e as NodeJS.ErrnoException).code ?? 'unreadable'}`,
          'a log that can be read',
        );
      }
      if (text.length > LOG_LIMIT_BYTES)
        throw new BadInput('LOG', `${text.length} characters`, `at most ${LOG_LIMIT_BYTES}`);
      const face = faceOf(text.slice(0, HEAD_LENGTH), zone);
      let map = face.map;
      if (map && options['map'] !== undefined) {
        const header = face.rows[map.header] ?? [];
        const columns = options['map'].split(',').map((pair) => {
          const [role, column] = pair.split('=') as [string, string | undefined];
          if (!roleOf(role)) throw new BadInput('--map', role, `one of ${LOG_ROLES.map((r) => r.id).join(', ')}`);
          const index = /^\d+$/.test(column ?? '') ? Number(column) - 1 : header.findIndex((h) => h.trim() === column);
          if (column === undefined || index < 0 || index >= header.length)
            throw new BadInput('--map', pair, `ROLE=COLUMN with a column of ${header.map((h) => h.trim()).join(', ')}`);
          return { index, role: roleOf(role)!.id, name: header[index]!.trim(), times: 1 };
        });
        map = { ...map, columns };
      }
      let series;
      try {
        series = readLog(text, face, map);
      } catch (e) {
        if (e instanceof RangeError)
          throw new BadInput('--zone', zone, 'a name of the time zone list, like America/Denver');
        throw e;
      }
      if (series.t.length === 0)
        throw new BadInput(
          'LOG',
          `${series.rows} lines, none of them a sample`,
          'a CSV with a column of times and at least one of numbers, or a CAN log of RV-C frames',
        );
      const reading = analyseLog(series, { nominal: Number(nominal) as 12 | 24 | 48, chemistry });
      return {
        kind: face.kind,
        from: iso(reading.from),
        to: iso(reading.to),
        rows: reading.rows,
        dropped: reading.dropped,
        interval: reading.interval,
        columns: series.channels.map((c) => ({ role: c.role, name: c.name })),
        problems: series.problems,
        counts: series.counts,
        gaps: series.gaps.map((g) => ({ from: iso(g.from), to: iso(g.to) })),
        events: reading.events.map((e) => ({ at: iso(e.t), kind: e.kind, says: e.says })),
        estimates: reading.estimates.map((e) => ({ ...e, says: estimateInWords(e) })),
        ...(reading.cycles ? { cycles: reading.cycles } : {}),
        ...(reading.hunting ? { hunting: reading.hunting } : {}),
        says: reading.says,
      };
    },
  },
};

const TARGETS = ['job', 'readings-csv', 'bom-csv', 'cut-list-csv', 'svg'] as const;

export const CONVERT: Verb = {
  about: 'the job in another format: readings, parts or cut list as CSV, the wiring as SVG, the job file itself',
  example: 'convert examples/heron.surrik.json --to readings-csv',
  options: `  --to ${TARGETS.join('|')}\n  --rig as-found|proposed[:ID]|as-built   for svg`,
  run({ job, revision, options }) {
    const to = options['to'];
    const build = () => {
      const plan = buildJob(job);
      if (!plan) throw new BadInput('--to', to!, 'a job with a picked link: nothing is to be built');
      return plan;
    };
    switch (to) {
      case 'job':
        return `${JSON.stringify(job, null, 2)}\n`;
      case 'readings-csv':
        return readingsCsv(job);
      case 'bom-csv':
        return bomCsv(build().plan, buildOf(job, build().candidate).ticks);
      case 'cut-list-csv':
        return cutListCsv(build().plan);
      case 'svg':
        return svgOf(wiringOf(revision.doc, DEFAULT_SETTINGS).drawing);
      default:
        throw new BadInput('--to', to ?? 'nothing', `one of ${TARGETS.join(', ')}`);
    }
  },
};
