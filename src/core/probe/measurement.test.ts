/** What can be measured on every rig one can have drawn: each point once, its leads named, somewhere on the rig. */
import { EVERY_RIG } from '../../../tests/everyRig';
import { describe, expect, it } from 'vitest';
import { VARIETY } from '../../../tests/motorhomes';
import { partKind } from '../parts/kinds';
import { motorhome } from '../rig/archetypes/motorhome';
import type { Rig } from '../rig/schema';
import { measurementId, placeOf, pointPlace, rigMeasurements } from './measurement';
import { rigOutputs } from './outputs';
import { compileRig } from '../compile/compile';

const reference = (rig: Rig) => `${rig.reference.part}.${rig.reference.terminal}`;

describe.each(EVERY_RIG)('%s', (_, rig) => {
  const list = rigMeasurements(rig, reference(rig));

  it('asks for each thing once, by an id made of its leads', () => {
    expect(new Set(list.map((m) => m.id)).size).toBe(list.length);
    for (const m of list) {
      expect(m.id).toBe(measurementId(m.red, m.black));
      expect(m.kind === 'clamp').toBe(m.black === undefined);
      expect(m.red).not.toBe(m.black);
    }
  });

  it('reaches every probe in use, and none that is retired', () => {
    for (const p of rig.probes) {
      const asked = list.some((m) => m.red === p.key || m.black === p.key);
      expect(asked, p.key).toBe(!p.retired);
    }
    const without = { ...rig, probes: rig.probes.map((p, i) => (i === 0 ? { ...p, retired: true } : p)) };
    const gone = rig.probes[0]!.key;
    expect(rigMeasurements(without, reference(rig)).some((m) => m.red === gone && m.kind !== 'drop')).toBe(false);
  });

  it('is of points the model knows, so that everything asked for has a band', () => {
    const known = new Set(rigOutputs(compileRig(rig)).map((o) => o.key));
    for (const m of list) {
      expect(known.has(m.red), m.red).toBe(true);
      if (m.black !== undefined) expect(known.has(m.black), m.black).toBe(true);
    }
  });

  it('says in words where each lead goes, somewhere along the rig, and how long that takes', () => {
    const [from, to] = [-3, rig.vehicles.reduce((sum, v) => sum + v.length, 0) + 3];
    for (const m of list) {
      expect(m.name.length, m.id).toBeGreaterThan(2);
      expect(m.label, m.id).not.toBe('');
      expect(m.minutes, m.id).toBeGreaterThan(0);
      expect(m.minutes, m.id).toBeLessThan(15);
      for (const key of [m.red, ...(m.black === undefined ? [] : [m.black])]) {
        const at = pointPlace(rig, key);
        expect(at.lead, key).not.toMatch(/undefined|\./);
        expect(at.place.length, key).toBeGreaterThan(2);
        expect(at.station, key).toBeGreaterThanOrEqual(from);
        expect(at.station, key).toBeLessThanOrEqual(to);
        expect(at.accessMinutes, key).toBeGreaterThanOrEqual(0);
      }
    }
  });

  it('has a drop across what sits in the heavy line, from stud to stud', () => {
    for (const part of rig.parts.filter((p) => partKind(p.kind).traits.line && partKind(p.kind).role === 'inline')) {
      const studs = partKind(part.kind).traits.line!.map((t) => `${part.id}.${t}`);
      if (!studs.every((s) => rig.probes.some((p) => p.key === s && !p.retired))) continue;
      expect(
        list.some((m) => m.kind === 'drop' && studs.includes(m.red) && studs.includes(m.black!)),
        part.id,
      ).toBe(true);
    }
  });
});

describe('the black lead', () => {
  it('somewhere else is what every volt is read against', () => {
    const rig = motorhome('t', 'T', VARIETY[0]!);
    for (const ground of rig.grounds)
      for (const point of ground.points) {
        const black = `${ground.id}.${point.id}`;
        for (const m of rigMeasurements(rig, black).filter((x) => x.kind === 'volts')) expect(m.black).toBe(black);
      }
  });
});

describe('the direct drops of a coach with a delay module', () => {
  const drops = rigMeasurements(motorhome('drops', 'Drops')).filter((m) => m.kind === 'drop');
  const of = (id: string) => drops.find((m) => m.id === id);

  it('go over a fuse nobody can probe behind, with the short lead behind it', () => {
    expect(of('link-fuse.source~link.chassis-stud')!.name).toMatch(/^Drop across .*fuse and /);
  });

  it('take the control side piece by piece: module, wire, coil', () => {
    for (const id of ['delay.ignition~delay.output', 'delay.output~link.coil-plus', 'link.coil-plus~link.coil-minus'])
      expect(of(id), id).toBeDefined();
  });

  it('are between points that leads reach from one to the other', () => {
    for (const m of drops) {
      const [a, b] = [m.red, m.black!].map((k) => pointPlace(motorhome('drops', 'Drops'), k).station);
      expect(Math.abs(a! - b!), m.id).toBeLessThanOrEqual(2);
    }
  });
});

describe('the place of a point', () => {
  it('is the one its measurement says, and none where what it was on is gone', () => {
    for (const [name, rig] of EVERY_RIG)
      for (const p of rig.probes) {
        expect(placeOf(rig, p.key), `${name} ${p.key}`).toBe(pointPlace(rig, p.key).place);
        const owner = p.key.split('.')[0];
        const without = {
          ...rig,
          parts: rig.parts.filter((x) => x.id !== owner),
          conductors: rig.conductors.filter((x) => x.id !== owner),
          grounds: rig.grounds.filter((x) => x.id !== owner),
        };
        expect(placeOf(without, p.key)).toBeUndefined();
      }
  });
});
