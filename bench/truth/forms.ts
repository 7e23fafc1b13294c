/** The forms of truth, by name. `stepped` and `spice` are tuned on; `kinetic` and `shells` are only reported on. */
import type { Rig } from '../../src/core/rig/schema';
import { rigOutputs } from '../../src/core/probe/outputs';
import { compileRig } from '../../src/core/compile/compile';
import type { RigDocument } from './document';
import { hide, type Group } from './hidden';
import { KINETIC } from './kineticLaws';
import { Chance } from './random';
import { SHELL } from './shellLaws';
import { SpiceRig } from './spiceRig';
import { TAFEL } from './tafelLaws';
import { Technician } from './technician';
import type { TrueRig } from './trueRig';
import { Vehicle } from './vehicle';

type Form = (rig: Rig, seed: number, group: Group, kind?: string) => Technician | undefined;

/** What a form is of: a drawing as data, to a rig as it really is; undefined for a drawing it has no rig of. */
type Make = (rig: RigDocument, chance: Chance) => TrueRig | undefined;

const form =
  (make: Make): Form =>
  (rig, seed, group, kind) => {
    const chance = new Chance(seed);
    const truth = make(rig as unknown as RigDocument, chance);
    const hidden = truth && hide(truth, group, kind);
    if (!hidden) return undefined;
    const points = rigOutputs(compileRig(rig)).map((o) => o.key);
    return new Technician(truth, points, hidden, chance);
  };

export const FORMS: Readonly<Record<string, Form>> = {
  stepped: form((rig, chance) => new Vehicle(rig, TAFEL, chance)),
  spice: form((rig, chance) => (SpiceRig.can(rig) ? new SpiceRig(rig, chance) : undefined)),
  kinetic: form((rig, chance) => new Vehicle(rig, KINETIC, chance)),
  shells: form((rig, chance) => new Vehicle(rig, SHELL, chance)),
};
