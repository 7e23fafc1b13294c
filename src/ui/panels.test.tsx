/**
 * The tables and slips of Options, Sizing, Build and Logbook, given the core's own answers on demo jobs: they show all
 * of what was worked out, in words and units, and nothing of how the program keeps it.
 */
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { exampleJob } from '../../tests/answers';
import { jobPageOf, readable, rendered } from '../../tests/jobPage';
import { auditJob, jobCandidates, jobScenarios, sizeJob } from '../core/jobAnswers/options';
import { currentRevision } from '../core/job/job';
import { buildPlan } from '../core/plan/build/build';
import { compare, type Comparison } from '../core/plan/compare';
import type { Sized } from '../core/rules/sized';
import type { TowReport } from '../core/rules/tow/report';
import { connectorOf, positionShown } from '../core/parts/connectors';
import { gaugeShown } from '../core/units/wire';
import { DEFAULT_SETTINGS } from '../core/shop/shop';
import { CutTable } from './build/CutTable';
import { PartTable } from './build/PartTable';
import { StepList } from './build/StepList';
import { Drain } from './logbook/Drain';
import { Files } from './logbook/Files';
import { FollowUps } from './logbook/FollowUps';
import { History } from './logbook/History';
import { OptionSlip } from './options/OptionSlip';
import { OptionTable } from './options/OptionTable';
import { PickDialog } from './options/PickDialog';
import { PointsDialog } from './options/PointsDialog';
import { UsageEditor } from './options/UsageEditor';
import { SignBox } from './prove/SignBox';
import type { JobPage } from './shell/jobPage';
import { ChargerPanel } from './sizing/ChargerPanel';
import { FusePanel } from './sizing/FusePanel';
import { RulePanel } from './sizing/RulePanel';
import { RunPanel } from './sizing/RunPanel';
import { SizingSlip } from './sizing/SizingSlip';
import { ThresholdPanel } from './sizing/ThresholdPanel';
import { Face } from './sizing/tow/Face';
import { TowPanel } from './sizing/tow/TowPanel';

vi.mock('chartjs-plugin-zoom', () => ({ default: { id: 'zoom' } }));

const nothing = () => undefined;
/** What a program would say and a person would not. */
const SLIPS = /undefined|NaN|\[object|Infinity|null\b|\d\.\d{5,}/;

describe.each(['heron', 'pika', 'dipper', 'marmot', 'osprey', 'wren'] as const)('%s', (name) => {
  const job = exampleJob(name);
  const { doc } = currentRevision(job);
  let page: JobPage;
  let sized: Sized;
  let tow: TowReport | undefined;
  let comparison: Comparison;
  beforeAll(async () => {
    page = await jobPageOf(job, 'sizing');
    sized = sizeJob(job);
    tow = auditJob(job);
    comparison = compare(jobCandidates(job).slice(0, 3), jobScenarios(job), { labourPerHour: 130, partsTimes: 1.3 });
  });
  const text = (piece: React.ReactNode) => readable(rendered(page, piece));

  it('says nothing only a program would, in any of its panels', () => {
    const row = comparison.rows[0]!;
    const pieces: Record<string, React.ReactNode> = {
      runs: <RunPanel sized={sized} doc={doc} setDrop={nothing} mend={nothing} />,
      fuses: <FusePanel sized={sized} mend={nothing} />,
      thresholds: <ThresholdPanel sized={sized} mend={nothing} />,
      chargers: <ChargerPanel sized={sized} mend={nothing} upfit={undefined} setUpfit={nothing} />,
      rules: <RulePanel sized={sized} mend={nothing} waive={nothing} takeBack={nothing} />,
      table: (
        <OptionTable comparison={comparison} spreads={undefined} picked="leave" onPick={nothing} onWorking={nothing} />
      ),
      usage: <UsageEditor scenarios={jobScenarios(job)} house={undefined} onChange={nothing} />,
      points: <PointsDialog scored={row.scored} name={row.candidate.name} onClose={nothing} />,
      pick: <PickDialog row={row} reasons={[]} onClose={nothing} onPick={nothing} />,
      history: <History jobs={[job]} />,
      drain: <Drain />,
      files: <Files />,
      followUps: <FollowUps />,
      sign: <SignBox proven />,
    };
    for (const [which, piece] of Object.entries(pieces)) expect(text(piece), which).not.toMatch(SLIPS);
  });

  it('sizing names every cable, and the gauge of the one shown', () => {
    const [first] = sized.runs;
    const shown = text(<RunPanel sized={sized} doc={doc} setDrop={nothing} mend={nothing} />);
    if (!first) return expect(shown).toContain('No cable of this rig');
    for (const run of sized.runs) expect(shown).toContain(run.name);
    expect(shown).toContain(gaugeShown(first.table.now, DEFAULT_SETTINGS.gauge));
  });

  it('fuses are all there, with what each is held against', () => {
    const shown = text(<FusePanel sized={sized} mend={nothing} />);
    for (const fuse of sized.fuses) expect(shown).toContain(fuse.name);
    for (const check of sized.fuses[0]?.checks ?? []) expect(shown).toContain(check.says);
  });

  it('rules are all there, graver ones first, each with what it saw', () => {
    const shown = text(<RulePanel sized={sized} mend={nothing} waive={nothing} takeBack={nothing} />);
    const places = sized.findings.filter((f) => !f.waiver).map((f) => shown.indexOf(f.says));
    expect(places.every((p) => p >= 0)).toBe(true);
    for (let i = 1; i < places.length; i++) expect(places[i]!).toBeGreaterThan(places[i - 1]!);
  });

  it('options have a row each, with what it costs and why one is ruled out', () => {
    const shown = text(
      <OptionTable comparison={comparison} spreads={undefined} picked="leave" onPick={nothing} onWorking={nothing} />,
    );
    for (const row of comparison.rows) {
      expect(shown).toContain(row.candidate.name);
      if (row.scored.ruledOut.length > 0)
        expect(
          row.scored.ruledOut.some((why) => shown.includes(why)),
          row.candidate.name,
        ).toBe(true);
    }
    const slip = text(
      <OptionSlip
        comparison={comparison}
        picked={comparison.recommendation?.pick ?? 'leave'}
        influences={[]}
        choose={nothing}
        spreadBar={null}
      />,
    );
    if (comparison.recommendation) expect(slip).toContain(comparison.recommendation.reasons[0]!.says);
  });

  it('points add up to the total that stands over them', () => {
    for (const row of comparison.rows) {
      const shown = text(<PointsDialog scored={row.scored} name={row.candidate.name} onClose={nothing} />);
      expect(shown).toContain(`${row.scored.total.toFixed(0)} of 100 points`);
      for (const p of row.scored.points) expect(shown).toContain(p.criterion);
    }
  });

  it('a build lists each part, cut and step of its plan', () => {
    const other = jobCandidates(job).find((c) => c.differences.length > 0);
    if (!other) return;
    const plan = buildPlan(doc, other.rig);
    const parts = text(<PartTable plan={plan} ticks={{}} tick={nothing} />);
    for (const line of plan.parts) expect(parts).toContain(line.what);
    const cuts = text(<CutTable plan={plan} />);
    for (const cut of plan.cuts) {
      expect(cuts).toContain(cut.name);
      for (const end of cut.ends) expect(cuts).toContain(end.label);
    }
    const steps = text(
      <StepList
        plan={plan}
        done={new Map()}
        next={undefined}
        locked={false}
        finish={nothing}
        undo={nothing}
        move={nothing}
      />,
    );
    for (const step of plan.steps) expect(steps).toContain(step.title);
    for (const shown of [parts, cuts, steps]) expect(shown).not.toMatch(SLIPS);
  });

  it('a tow plug shows each of its positions, and says what is wrong with one where something is', () => {
    if (!tow) return;
    const shown = text(<TowPanel report={tow} describe={nothing} apply={nothing} applies="Record it" />);
    expect(shown).not.toMatch(SLIPS);
    const plug = tow.tow.plugs[0]!;
    for (const side of ['socket', 'plug'] as const) {
      const face = rendered(
        page,
        <Face plug={plug} side={side} picked={undefined} bad={new Set(['1'])} pick={nothing} words={(x) => x} />,
      );
      for (const p of connectorOf(plug.connector).positions) expect(face).toContain(`Pin ${positionShown(p.id)},`);
      expect((face.match(/something is wrong/g) ?? []).length).toBeLessThanOrEqual(1);
    }
    const slip = text(
      <SizingSlip sized={sized} mend={nothing} show={nothing} tow={tow} apply={nothing} applies="Record it" />,
    );
    expect(slip).not.toMatch(SLIPS);
  });
});
