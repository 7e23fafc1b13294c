/** Verbs about the design: size, check. */
import { auditJob, sizedRevision, sizeJob } from '../core/jobAnswers/options';
import { RULES } from '../core/rules/check';
import { SEVERITIES } from '../core/rules/rule';
import { USUAL_JURISDICTION } from '../core/codes';
import { JURISDICTIONS, type Jurisdiction } from '../core/units/preferences';
import type { TowAudit } from '../core/rules/tow/audit';
import type { TowReport } from '../core/rules/tow/report';
import { BadInput, type Verb, type VerbContext } from './verb';

/** The revision named on the line; the pick that stands where none is. */
const revisionOf = ({ job, revision, options }: VerbContext) =>
  options['rig'] === undefined ? sizedRevision(job) : revision;

/** Whose rules it is judged by. */
function jurisdictionOf({ options }: VerbContext): Jurisdiction {
  const asked = options['jurisdiction'] ?? USUAL_JURISDICTION;
  const found = JURISDICTIONS.find((j) => j.id === asked);
  if (!found) throw new BadInput('--jurisdiction', asked, `one of ${JURISDICTIONS.map((j) => j.id).join(', ')}`);
  return found.id;
}
const JURISDICTION_HELP = `--jurisdiction ${JURISDICTIONS.map((j) => j.id).join('|')}  whose rules (default ${USUAL_JURISDICTION})`;

/** The audit as JSON: hours are null where nothing drains the start battery. */
const towShown = ({ tow, described, audit }: TowReport) => {
  const hours = (h: number) => (Number.isFinite(h) ? h : null);
  const side = ({ troubles, hoursToNoStart, hoursToFlat, breakawayMinutes }: TowAudit['before']) => ({
    troubles,
    hoursToNoStart: hours(hoursToNoStart),
    ...(hoursToFlat === undefined ? {} : { hoursToFlat: hours(hoursToFlat) }),
    breakawayMinutes: hours(breakawayMinutes),
  });
  return {
    interface: tow,
    described,
    contradictions: audit.contradictions,
    before: side(audit.before),
    situations: audit.before.solved.map((s) => ({
      situation: s.situation.id,
      amps: Object.fromEntries([...s.ways].map(([key, f]) => [key, f.amps])),
      startBattery: s.start,
      ...(s.accessory !== undefined ? { accessoryBattery: s.accessory } : {}),
      charger: s.charger,
    })),
    changes: audit.changes,
    smallest: audit.smallest,
    left: audit.left,
    ...(audit.after ? { after: { interface: audit.after.tow, ...side(audit.after) } } : {}),
  };
};

export const SIZE_VERBS: Readonly<Record<string, Verb>> = {
  size: {
    about:
      'every heavy cable in every gauge, every fuse with its checks, thresholds and lockouts ' +
      'against predicted volts, on the job’s own use',
    example: 'size examples/heron.surrik.json --drop 3',
    options:
      '  --run ID  only this cable  --drop PERCENT  of the nominal volts a charge ' +
      `line may lose (default 3)  --upfit AMPS  the vehicle’s maker allows  ${JURISDICTION_HELP}`,
    run(context) {
      const text = context.options['drop'] ?? '3';
      const percent = Number(text);
      if (!(percent > 0 && percent <= 50)) throw new BadInput('--drop', text, 'a percentage above 0, at most 50');
      const upfitText = context.options['upfit'];
      const upfit = upfitText === undefined ? undefined : Number(upfitText);
      if (upfit !== undefined && !(upfit > 0 && upfit <= 500))
        throw new BadInput('--upfit', upfitText!, 'amps above 0, at most 500');
      const jurisdiction = jurisdictionOf(context);
      const revision = revisionOf(context);
      const drops = Object.fromEntries(revision.doc.conductors.map((c) => [c.id, percent / 100]));
      const { runs, fuses, chargers, thresholds, lockouts } = sizeJob(context.job, revision, {
        drops,
        jurisdiction,
        ...(upfit === undefined ? {} : { upfit }),
      });
      const only = context.options['run'];
      if (only !== undefined && !runs.some((r) => r.id === only))
        throw new BadInput('--run', only, `one of ${runs.map((r) => r.id).join(', ')}`);
      return {
        revision: { id: revision.id, kind: revision.kind },
        jurisdiction,
        runs: runs.filter((r) => only === undefined || r.id === only),
        fuses: fuses.map(({ curves: _, ...f }) => f),
        chargers,
        thresholds,
        lockouts,
      };
    },
  },
  check: {
    about: `the ${RULES.length} design rules and the tow-interface audit: what each saw in numbers, why it matters, what mends it`,
    example: 'check examples/osprey.surrik.json',
    options: `  --severity danger  only findings this grave or graver  ${JURISDICTION_HELP}`,
    run(context) {
      const revision = revisionOf(context);
      const order: readonly string[] = SEVERITIES;
      const jurisdiction = jurisdictionOf(context);
      const least = context.options['severity'];
      if (least !== undefined && !order.includes(least))
        throw new BadInput('--severity', least, `one of ${order.join(', ')}`);
      const { findings } = sizeJob(context.job, revision, { jurisdiction });
      const shown = findings.filter((f) => least === undefined || order.indexOf(f.severity) <= order.indexOf(least));
      const tow = auditJob(context.job, revision, jurisdiction);
      return {
        revision: { id: revision.id, kind: revision.kind },
        jurisdiction,
        rules: RULES.length,
        findings: shown,
        ...(tow ? { tow: towShown(tow) } : {}),
      };
    },
  },
};
