import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { STATE_IDS } from '../operate/states';
import { currentRevision } from '../job/job';
import { passes } from './check';
import { HOUSING_LIMIT_CELSIUS, rigChecks } from './checks';

const rigs = demoJobs(new Date('2026-11-24T16:00:00Z')).map((j) => currentRevision(j).doc);
const rigNamed = (name: string) => rigs.find((r) => r.name === name)!;
const required = (list: ReturnType<typeof rigChecks>) => list.filter((c) => c.required).map((c) => c.id);

describe('checks of the finished rig', () => {
  it('of a build: hunting, an hour at idle, and sleep at the end', () => {
    const rig = rigNamed('Heron');
    const list = rigChecks({ rig, from: rig, made: 'build' });
    expect(required(list)).toEqual(['hunting', 'idle-hour', 'sleep']);
    expect(list.at(-1)!.id).toBe('sleep');
    for (const c of list) expect(STATE_IDS).toContain(c.state);
  });

  it('after a like-for-like repair of a contact nothing more is asked for; after one of what decides, whether it hunts', () => {
    const rig = rigNamed('Heron');
    expect(required(rigChecks({ rig, from: rig, made: 'repair', repaired: 'link' }))).toEqual([]);
    expect(required(rigChecks({ rig, from: rig, made: 'repair', repaired: 'delay' }))).toEqual(['hunting']);
  });

  it('asks for lights, brakes and breakaway wherever the tow connector was touched (common practice, no source)', () => {
    for (const name of ['Pika', 'Dipper', 'Marmot', 'Osprey']) {
      const rig = rigNamed(name);
      const safety = ['lights', 'brakes', 'breakaway'];
      expect(required(rigChecks({ rig, from: rig, made: 'repair', repaired: 'connector' }))).toEqual(
        expect.arrayContaining(safety),
      );
      // A wire that ends at the connector.
      const wire = rig.conductors.find((c) => c.to.part === 'connector' || c.from.part === 'connector')!;
      expect(required(rigChecks({ rig, from: rig, made: 'repair', repaired: wire.id }))).toEqual(
        expect.arrayContaining(safety),
      );
      const thicker = {
        ...rig,
        conductors: rig.conductors.map((c) => (c.id === wire.id ? { ...c, gauge: '2/0' as const } : c)),
      };
      expect(required(rigChecks({ rig: thicker, from: rig, made: 'build' }))).toEqual(expect.arrayContaining(safety));
      // Not touched: advised, never forgotten.
      const far = rigChecks({ rig, from: rig, made: 'repair', repaired: 'house' });
      for (const id of safety) expect(far.find((c) => c.id === id)).toMatchObject({ required: false });
    }
    expect(rigChecks({ rig: rigNamed('Wren'), from: undefined, made: 'build' }).map((c) => c.id)).not.toContain(
      'brakes',
    );
  });

  it('passes only what is written down and within every limit', () => {
    const hour = rigChecks({ rig: rigNamed('Heron'), from: undefined, made: 'build' }).find(
      (c) => c.id === 'idle-hour',
    )!;
    expect(passes(hour, {})).toBeUndefined();
    expect(passes(hour, { amps: 60 })).toBeUndefined();
    expect(passes(hour, { amps: 60, celsius: HOUSING_LIMIT_CELSIUS })).toBe(true);
    expect(passes(hour, { amps: 60, celsius: HOUSING_LIMIT_CELSIUS + 1 })).toBe(false);
    expect(passes(hour, { amps: 500, celsius: 80 })).toBe(false);
  });
});
