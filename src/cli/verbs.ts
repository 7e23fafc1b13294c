/** What each headless verb does. The table is the command line's face; a verb is a row. */
import { spiceDeck, spiceName } from '../core/circuit/deck';
import { emfAmps, resistorAmps } from '../core/circuit/readings';
import { compileRig } from '../core/compile/compile';
import { Belief } from '../core/diagnose/belief';
import { diagnose } from '../core/diagnose/diagnose';
import { HiddenRig } from '../core/diagnose/hiddenRig';
import { intakeClues, standingAnswers } from '../core/job/job';
import { jobEvidence, jobUnreachable } from '../core/jobAnswers/evidence';
import type { Revision } from '../core/job/job';
import type { Rig } from '../core/rig/schema';
import { RigModel } from '../core/operate/settle';
import { isStateId, STATE_IDS, statesOf } from '../core/operate/states';
import { BandTable } from '../core/probe/bands';
import { readOutputs, rigOutputs } from '../core/probe/outputs';
import { CONVERT } from './logVerbs';
import { SIZE_VERBS } from './sizeVerbs';
import { TIME_VERBS } from './timeVerbs';
import { BadInput, wholeNumber, type Verb, type VerbContext } from './verb';

function stateOption(options: VerbContext['options'], name = 'state'): string {
  const state = options[name];
  if (state === undefined) throw new BadInput(`--${name}`, 'nothing', `an operating state: ${STATE_IDS.join(', ')}`);
  if (!isStateId(state)) throw new BadInput(`--${name}`, state, `one of ${STATE_IDS.join(', ')}`);
  return state;
}

/** A probe by its label (P9) or its key (link.coach-stud). */
function probeOption(context: VerbContext, name: 'probe' | 'ref'): string | undefined {
  const text = context.options[name];
  if (text === undefined) return undefined;
  const { doc } = context.revision;
  const probe = doc.probes.find((p) => p.label.toLowerCase() === text.toLowerCase() || p.key === text);
  if (probe) return probe.key;
  if (doc.grounds.some((g) => g.points.some((p) => `${g.id}.${p.id}` === text))) return text;
  throw new BadInput(`--${name}`, text, `a probe of this rig: ${doc.probes.map((p) => p.label).join(', ')}`);
}

const referenceKey = (revision: Revision) => `${revision.doc.reference.part}.${revision.doc.reference.terminal}`;

function settled(context: VerbContext) {
  const state = stateOption(context.options);
  const compiled = compileRig(context.revision.doc);
  const model = new RigModel(compiled);
  return { state, compiled, model, result: model.settle(state) };
}

/** Probes whose point is still there: one that went with its part is retired, and has nothing to read. */
const standingProbes = (rig: Rig): Rig['probes'] => rig.probes.filter((p) => !p.retired);

export const VERBS: Readonly<Record<string, Verb>> = {
  convert: CONVERT,
  solve: {
    about: 'volts, amps and controller modes of the rig in one operating state',
    example: 'solve examples/heron.surrik.json --state idle',
    options: `  --state ${STATE_IDS.join('|')}`,
    run(context) {
      const { state, compiled, model, result } = settled(context);
      const outputs = rigOutputs(compiled);
      const values = new Float64Array(outputs.length);
      readOutputs(model, outputs, values);
      const at = new Map(outputs.map((o, i) => [o.key, { unit: o.kind, value: values[i]! }]));
      const ref = referenceKey(context.revision);
      const probes = Object.fromEntries(
        standingProbes(context.revision.doc).map((p) => {
          const o = at.get(p.key)!;
          return [p.label, o.unit === 'amps' ? { key: p.key, amps: o.value } : { key: p.key, volts: o.value, ref }];
        }),
      );
      const { resistors, emfs } = compiled.topology;
      const branches: Record<string, { amps: number; volts: number }> = {};
      resistors.forEach((r, i) => {
        if (r.id.startsWith('meter.')) return;
        branches[r.id] = {
          amps: resistorAmps(model.solver, model.values, i),
          volts: model.solver.volts[r.a]! - model.solver.volts[r.b]!,
        };
      });
      emfs.forEach((e, i) => {
        branches[e.id] = {
          amps: emfAmps(model.solver, model.values, i),
          volts: model.solver.volts[e.plus]! - model.solver.volts[e.minus]!,
        };
      });
      return {
        state,
        probes,
        branches,
        modes: result.modes,
        collapsed: result.collapsed,
        ...(result.hunting ? { hunting: result.hunting } : {}),
      };
    },
  },
  predict: {
    about: 'the band a healthy rig would read, for every probe in every operating state',
    example: 'predict examples/heron.surrik.json',
    options: '',
    run({ revision }) {
      const table = new BandTable(compileRig(revision.doc));
      const ref = referenceKey(revision);
      return {
        states: statesOf(revision.doc).map((state) => ({
          state: state.id,
          bands: Object.fromEntries(
            standingProbes(revision.doc).map((p) => {
              const b = table.band(state.id, p.key, p.key.endsWith('.clamp') ? undefined : ref)!;
              return [p.label, { lo: b.lo, hi: b.hi, unit: b.unit }];
            }),
          ),
        })),
      };
    },
  },
  diagnose: {
    about: 'suspects, what speaks for and against each, the next best test, whether to stop',
    example: 'diagnose examples/heron.surrik.json',
    options: '  --from STATE  what the rig is doing now (default: what the job says)',
    run({ job, revision, options }) {
      const belief = new Belief(compileRig(revision.doc), intakeClues(job));
      belief.setEvidence(jobEvidence(job, revision.epoch), standingAnswers(job, revision.epoch));
      const state = options['from'] === undefined ? job.rigState.id : stateOption(options, 'from');
      return {
        ...diagnose(belief, { state, blackLead: job.blackLead, unreachable: jobUnreachable(job, revision.epoch) }),
      };
    },
  },
  measure: {
    about: 'what the meter shows on a rig that hides a fault, drawn from a seed',
    example: 'measure examples/heron.surrik.json --truth link.contact-open --seed 7 --state idle --probe P9',
    options:
      '  --truth FAULT, or FAULT+FAULT for two at once; --seed N --state S --probe P [--ref P] [--take N]\n' +
      '  [--widen X100] [--blunders PER_CENT]',
    run(context) {
      const { options, revision } = context;
      const state = stateOption(options);
      const probe = probeOption(context, 'probe');
      if (probe === undefined) throw new BadInput('--probe', 'nothing', 'a probe label or key');
      const clamp = probe.endsWith('.clamp');
      const ref = clamp ? undefined : (probeOption(context, 'ref') ?? referenceKey(revision));
      try {
        const hidden = new HiddenRig(compileRig(revision.doc), options['truth'] ?? '', wholeNumber(options, 'seed'), {
          widen: wholeNumber(options, 'widen', 100) / 100,
          blunderShare: wholeNumber(options, 'blunders', 0) / 100,
        });
        const { value, unit } = hidden.read(state, probe, ref, wholeNumber(options, 'take', 0));
        return { state, probe, ...(ref === undefined ? {} : { ref }), value, unit };
      } catch (e) {
        if (e instanceof RangeError) throw new BadInput('--truth', options['truth'] ?? 'nothing', e.message);
        throw e;
      }
    },
  },
  netlist: {
    about: 'the same circuit as a SPICE deck that `ngspice -b` runs as it is',
    example: 'netlist examples/heron.surrik.json --state idle > idle.cir && ngspice -b idle.cir',
    options: `  --state ${STATE_IDS.join('|')}`,
    run(context) {
      const { state, compiled, model } = settled(context);
      return spiceDeck(compiled.topology, model.values, {
        title: `${context.revision.doc.name}, ${state}`,
        volts: model.solver.volts,
        probes: standingProbes(context.revision.doc)
          .filter((p) => !p.key.endsWith('.clamp'))
          .map((p) => ({ name: spiceName(p.label), red: compiled.node.get(p.key)!, black: 0 })),
        clamps: standingProbes(context.revision.doc).flatMap((p) => {
          const resistor = p.key.endsWith('.clamp') ? compiled.resistor.get(p.key.split('.')[0]!) : undefined;
          return resistor === undefined ? [] : [{ name: spiceName(p.label), resistor }];
        }),
      });
    },
  },
  ...TIME_VERBS,
  ...SIZE_VERBS,
  validate: {
    about: 'whether a job file is whole and consistent',
    example: 'validate examples/heron.surrik.json',
    options: '',
    run({ job, revision }) {
      return { valid: true, number: job.number, rig: revision.doc.name, readings: job.readings.length };
    },
  },
};
