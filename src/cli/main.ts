/**
 * The headless verbs: JSON in, JSON out. Exit 0 answered (collapsed and hunting are answers), 2 bad input
 * (a line for each place: JSON pointer, found, wanted), 3 our fault.
 */
import { namedRevision, currentRevision } from '../core/job/job';
import { BadInput, type VerbContext } from './verb';
import { LOG_VERBS } from './logVerbs';
import { readJob } from './readJob';
import { VERBS } from './verbs';

const OPTIONS = new Set([
  'state',
  'rig',
  'truth',
  'seed',
  'probe',
  'ref',
  'take',
  'widen',
  'blunders',
  'from',
  'scenario',
  'candidates',
  'samples',
  'run',
  'drop',
  'upfit',
  'jurisdiction',
  'severity',
  'to',
  'zone',
  'map',
  'nominal',
  'chemistry',
]);

/** Options that take no value. */
const FLAGS = new Set(['csv', 'series']);

function usage(): string {
  const lines = Object.entries({ ...VERBS, ...LOG_VERBS }).map(
    ([name, v]) => `  ${name.padEnd(11)} ${v.about}\n              e.g. ./surrik ${v.example}`,
  );
  return `usage: ./surrik VERB JOB [--rig as-found|proposed[:ID]|as-built] [options]\n\n${lines.join('\n')}\n`;
}

/** Options by name, and what is left: files. */
function readArguments(words: readonly string[]): { options: Record<string, string>; files: string[] } {
  const options: Record<string, string> = {};
  const files: string[] = [];
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!;
    if (!word.startsWith('--')) {
      files.push(word);
      continue;
    }
    const name = word.slice(2);
    if (FLAGS.has(name)) {
      options[name] = 'yes';
      continue;
    }
    if (!OPTIONS.has(name))
      throw new BadInput(word, word, `one of ${[...OPTIONS, ...FLAGS].map((o) => `--${o}`).join(', ')}`);
    const value = words[++i];
    if (value === undefined) throw new BadInput(word, 'nothing', 'a value after it');
    if (options[name] !== undefined)
      throw new BadInput(word, `“${options[name]}” and “${value}”`, 'it once; two faults at once are --truth A+B');
    options[name] = value;
  }
  return { options, files };
}

function main(argv: readonly string[]): number {
  const [verbName, ...rest] = argv;
  const log = verbName === undefined ? undefined : LOG_VERBS[verbName];
  const verb = verbName === undefined ? undefined : (log ?? VERBS[verbName]);
  if (!verb || rest.includes('--help')) {
    process.stdout.write(verb ? `${verb.about}\n  ./surrik ${verb.example}\n${verb.options}\n` : usage());
    return verb || verbName === '--help' || verbName === undefined ? 0 : 2;
  }
  try {
    const { options, files } = readArguments(rest);
    if (files.length !== 1) throw new BadInput('JOB', `${files.length} files`, 'one job file, or - for standard input');
    const print = (answer: object | string) =>
      process.stdout.write(
        typeof answer === 'string' ? answer : `${JSON.stringify({ schemaVersion: 1, ...answer }, null, 2)}\n`,
      );
    if (log) {
      print(log.run(files[0]!, options));
      return 0;
    }
    const job = readJob(files[0]!);
    const revision = options['rig'] === undefined ? currentRevision(job) : namedRevision(job, options['rig']);
    if (!revision)
      throw new BadInput(
        '--rig',
        options['rig'] ?? '',
        `a revision of this job: ${job.revisions.map((r) => r.kind).join(', ')}`,
      );
    const context: VerbContext = { job, revision, options };
    print(VERBS[verbName!]!.run(context));
    return 0;
  } catch (e) {
    if (e instanceof BadInput) {
      process.stderr.write(`${e.message}\n`);
      return 2;
    }
    process.stderr.write(`surrik ${verbName} failed: ${(e as Error).stack ?? String(e)}\n`);
    return 3;
  }
}

process.exitCode = main(process.argv.slice(2));
