/**
 * The coupled rig solved in its situations. A DC-DC charger takes its power whatever the volts, down to its lockout;
 * the van's own charger takes from the start battery what it gives, with its losses.
 */
import { CURRENT } from '../../circuit/devices';
import { emptyValues, type DeviceValues } from '../../circuit/network';
import { Solver } from '../../circuit/solve';
import { CompiledTow } from '../../compile/tow/compileTow';
import { TOW_SITUATIONS, type TowSituation } from '../../compile/tow/situations';
import type { TowVehicle } from '../../compile/tow/vehicle';
import { feeds, type WayKey } from '../../compile/tow/ways';
import { DCDC_EFFICIENCY, ENGINE_OFF_VOLTS, ENGINE_ON_VOLTS } from '../../parts/entries/dcdc';
import type { UseId } from '../../parts/pinUses';
import type { TowInterface } from '../../rig/tow';

/** Rounds of a charger's power against its feed. */
const MAX_ROUNDS = 40;

export interface WayFlow {
  /** A toward the trailer. */
  amps: number;
  /** V at the socket to the vehicle's frame, and at the plug. */
  socket: number;
  plug: number;
}

export interface TowSolution {
  situation: TowSituation;
  ways: ReadonlyMap<WayKey, WayFlow>;
  /** V across and A into each use. */
  uses: ReadonlyMap<UseId, { volts: number; amps: number }>;
  /** A into each battery: positive charges. */
  start: number;
  accessory?: number;
  /** A that come back through the hitch, and V of the trailer's frame above the vehicle's. */
  hitch: number;
  returnVolts: number;
  fridgeOn: boolean;
  charger: 'none' | 'off' | 'on' | 'starved';
}

/** A compiled tow interface and its solver. */
export class TowCircuit {
  private readonly solver: Solver;
  private readonly values: DeviceValues;

  constructor(private readonly model: CompiledTow) {
    this.solver = new Solver(model.net.topology);
    this.values = emptyValues(model.net.topology);
  }

  private at(name: string): number {
    return this.solver.volts[this.model.net.node(name)]!;
  }

  /** Solves the present values; the van's own charger takes from the start battery what it gives, with its losses. */
  private iterate(): void {
    const { solver, values } = this;
    const { filler } = this.model;
    solver.iterate(values);
    for (let k = 0; filler && k < MAX_ROUNDS; k++) {
      const given = Math.max(0, solver.pushed(filler.out)) * Math.max(1, this.at('accessory'));
      const taken = given / DCDC_EFFICIENCY / Math.max(8, this.at('start'));
      if (Math.abs(taken - CURRENT.amps.get(values, filler.in)) < 1e-4) return;
      CURRENT.amps.set(values, filler.in, taken);
      solver.iterate(values);
    }
  }

  /** Lets the charger take what it wants, down to its lockout. */
  private charge(s: TowSituation, ran: boolean): TowSolution['charger'] {
    const { values } = this;
    const { charger, tow, ways } = this.model;
    if (!charger) return 'none';
    if (!tow.charger) return 'off';
    const { amps, outVolts, inLimit, lockout, enable } = tow.charger;
    const { startsAt = ENGINE_ON_VOLTS, stopsAt = ENGINE_OFF_VOLTS } = tow.charger;
    const input = () => this.at(charger.plus) - this.at(charger.minus);
    const open = input();
    const told =
      enable === 'wire'
        ? s.key
        : enable === 'pin'
          ? feeds(ways, 'charger-enable', s) !== undefined
          : enable === 'always'
            ? open > lockout
            : open >= (ran ? stopsAt : startsAt);
    if (!told || open <= 1) return 'off';
    for (let k = 0; k < MAX_ROUNDS && input() >= lockout; k++) {
      const wanted = Math.min(inLimit, (amps * outVolts) / DCDC_EFFICIENCY / input());
      if (Math.abs(wanted - CURRENT.amps.get(values, charger.port)) < 1e-3) return 'on';
      CURRENT.amps.set(values, charger.port, wanted);
      this.iterate();
    }
    if (input() >= lockout) return 'on';
    CURRENT.amps.set(values, charger.port, 0);
    this.iterate();
    return 'starved';
  }

  /** The coupled rig in a situation. @param chargerRan whether the charger was running just before. */
  solve(s: TowSituation, chargerRan = false): TowSolution {
    const { values, solver } = this;
    const { net, loads, flows } = this.model;
    net.values(values, s);
    // Only what the converters take changes below: the linear half is made once.
    solver.prepare(values);
    this.iterate();
    const charger = this.charge(s, chargerRan);
    const emfAmps = (i: number) => {
      const { plus, minus } = net.topology.emfs[i]!;
      return (solver.volts[plus]! - solver.volts[minus]! - values.emfVolts[i]!) / values.emfOhms[i]!;
    };
    const uses = new Map(
      loads.map((l): [UseId, { volts: number; amps: number }] => {
        const volts = this.at(l.plus) - this.at(l.minus);
        return [
          l.use,
          {
            volts,
            amps:
              l.port !== undefined
                ? CURRENT.amps.get(values, l.port)
                : l.emf !== undefined
                  ? emfAmps(l.emf)
                  : volts / l.ohms!(s),
          },
        ];
      }),
    );
    return {
      situation: s,
      ways: new Map(
        flows.map((f): [WayKey, WayFlow] => [
          f.key,
          { amps: (this.at(f.socket) - this.at(f.plug)) / f.ohms, socket: this.at(f.socket), plug: this.at(f.plug) },
        ]),
      ),
      uses,
      start: emfAmps(this.model.start),
      ...(this.model.accessory !== undefined ? { accessory: emfAmps(this.model.accessory) } : {}),
      hitch: this.at('trailer frame') / this.model.vehicle.hitchOhms,
      returnVolts: this.at('trailer frame'),
      fridgeOn: (uses.get('fridge')?.amps ?? 0) > 1,
      charger,
    };
  }
}

/** All situations, in the order they follow each other: a charger that ran on the road may run on after the stop. */
export function solveTow(tow: TowInterface, vehicle: TowVehicle): TowSolution[] {
  const rig = new TowCircuit(new CompiledTow(tow, vehicle));
  const road = rig.solve(TOW_SITUATIONS[0]!);
  return [road, ...TOW_SITUATIONS.slice(1).map((s) => rig.solve(s, road.charger === 'on' && s.id !== 'overnight'))];
}
