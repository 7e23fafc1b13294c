/** The plan of a build: what to order, what to cut, what to bring, what to do in which order. */
import type { PriceRange } from '../../parts/price';
import type { Rig } from '../../rig/schema';
import { billOfMaterials, type BomLine } from './bom';
import { cutList, SERVICE_LOOP_METRES, type Cut } from './cutList';
import { orderSteps, respects, type BuildStep } from './graph';
import { buildSteps } from './steps';

export interface BuildPlan {
  parts: BomLine[];
  cuts: Cut[];
  /** m of slack at each end that is in a cut's length. */
  serviceLoop: number;
  tools: string[];
  /** In the order they are to be done. */
  steps: BuildStep[];
  minutes: PriceRange;
}

/** The plan of a job's pick. */
export interface JobBuild {
  candidate: string;
  revision: string;
  plan: BuildPlan;
}

/** Tools by what there is to do: common practice. */
function toolsFor(cuts: readonly Cut[], steps: readonly BuildStep[]): string[] {
  const tools = ['Meter, proved on a known source', 'Insulated wrenches, two of each size', 'Eye protection, gloves'];
  for (const crimper of new Set(cuts.map((c) => c.crimper)))
    tools.push(crimper.charAt(0).toUpperCase() + crimper.slice(1));
  if (cuts.length > 0) tools.push('Cable cutter, stripper, heat gun', 'Label printer');
  if (steps.some((s) => s.id.startsWith('mount-'))) tools.push('Drill, step bit, deburrer, sealant');
  if (steps.some((s) => s.torque)) tools.push('Torque wrench, paint marker');
  if (steps.some((s) => s.under)) tools.push('Stands, creeper, lamp', 'Pull rod or string');
  if (cuts.some((c) => c.use === 'return')) tools.push('Wire brush, star washers, grease for joints');
  return tools;
}

/** @param order the shop's own order; used while it still respects the graph, else made anew. */
export function buildPlan(from: Rig, to: Rig, order?: readonly string[]): BuildPlan {
  const cuts = cutList(from, to);
  const graph = buildSteps(from, to);
  const ids = order && respects(graph, order) ? [...order] : orderSteps(graph);
  const steps = ids.map((id) => graph.find((s) => s.id === id)!);
  return {
    parts: steps.length > 0 ? billOfMaterials(from, to, cuts) : [],
    cuts,
    serviceLoop: SERVICE_LOOP_METRES,
    tools: toolsFor(cuts, steps),
    steps,
    minutes: steps.reduce<PriceRange>((sum, s) => [sum[0] + s.minutes[0], sum[1] + s.minutes[1]], [0, 0]),
  };
}
