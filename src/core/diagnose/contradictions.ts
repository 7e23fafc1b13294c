/** Readings that are more likely slips than not, with the likeliest slip. */
import { chemistryOf } from '../parts/chemistry';
import { partKind, partOptions } from '../parts/kinds';
import { pointName } from '../probe/measurement';
import type { Belief, Evidence } from './belief';

export interface Contradiction {
  reading: string;
  probability: number;
  /** The likeliest slip, in words. */
  why: string;
}

export function contradictions(belief: Belief): Contradiction[] {
  const list: Contradiction[] = [];
  belief.evidence.forEach((e, r) => {
    const probability = belief.blunder[r]!;
    if (probability < 0.5) return;
    list.push({ reading: e.id, probability, why: likeliestSlip(belief, e) });
  });
  return list.sort((a, b) => b.probability - a.probability);
}

interface Expected {
  mean: number;
  sd: number;
}
const fits = (value: number, p: Expected) => Math.abs(value - p.mean) < 2.5 * p.sd;

/** A run leaves so much on a lead-acid bank, per 12 V. Common practice: up to a volt minutes after charging. */
const SURFACE: readonly [number, number] = [0.1, 1.1];

function likeliestSlip(belief: Belief, e: Evidence): string {
  let top = 0;
  belief.weight.forEach((w, i) => {
    if (w > belief.weight[top]!) top = i;
  });
  const { rig } = belief.compiled;
  const black = e.ref;
  const expect = (state: string, probe: string, ref = black): Expected => {
    const red = belief.rowOf(state, probe)!;
    return belief.predictive(top, red, ref === undefined ? -1 : belief.rowOf(state, ref)!);
  };
  const here = expect(e.state, e.probe);
  const state = belief.workspace.states.find((s) => s.id === e.state)!;
  if (Math.abs(e.value) < 0.02) return 'it reads zero: was the lead touching metal?';
  if (fits(-e.value, here)) return 'the sign is the other way round: were the leads swapped?';
  if (fits(e.value / 10, here) || fits(e.value * 10, here)) return 'it would fit with the decimal point moved.';
  const early = e.secondsInState !== undefined && e.secondsInState < 0.5 * state.inputs.dwell;
  if (leadAcidAt(belief, e.probe) && state.inputs.engine === 'off' && !state.inputs.shore) {
    const blocks = rig.vehicles[0]!.nominalVolts / 12;
    const over = (e.value - here.mean) / blocks;
    if (over > SURFACE[0] && over < SURFACE[1])
      return early
        ? `surface charge: it had stood ${minutes(e.secondsInState!)}, this state wants ` +
            `${minutes(state.inputs.dwell)}. Take the charge off with a load and wait.`
        : 'it would fit a bank with surface charge: was it charged within the last hours? Lights on for two minutes, then wait.';
  }
  if (early)
    return `it was taken ${minutes(e.secondsInState!)} after the change, before the delays had run (${minutes(state.inputs.dwell)}).`;
  const other = belief.workspace.states.find((s) => s.id !== e.state && fits(e.value, expect(s.id, e.probe)));
  if (other) return `it would fit ${other.label.toLowerCase()}: was the rig doing that?`;
  const unit = belief.outputs.find((o) => o.key === e.probe)?.kind;
  const beside = belief.outputs.find(
    (o) => o.key !== e.probe && o.kind === unit && fits(e.value, expect(e.state, o.key)),
  );
  if (beside) return `it is what ${pointName(rig, beside.key)} would read: was the lead there?`;
  const lead = belief.outputs.find(
    (o) => o.kind === 'volts' && o.key !== black && o.key !== e.probe && fits(e.value, expect(e.state, e.probe, o.key)),
  );
  if (black !== undefined && lead)
    return `it would fit with the black lead on ${pointName(rig, lead.key)}: where was it?`;
  return 'nothing this rig can do explains it beside the other readings.';
}

const minutes = (seconds: number): string =>
  seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`;

/** Whether a point is fed by a lead-acid bank's own post. */
function leadAcidAt(belief: Belief, key: string): boolean {
  const part = belief.compiled.rig.parts.find((p) => p.id === key.split('.')[0]);
  if (!part || partKind(part.kind).role !== 'battery') return false;
  return chemistryOf(partOptions(partKind(part.kind), part)['chemistry']!).id !== 'lfp';
}
