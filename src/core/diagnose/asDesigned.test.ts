import { describe, expect, it } from 'vitest';
import { LINK_CHOICES } from '../rig/archetypes/choices';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { PART_KINDS } from '../parts/kinds';
import { asDesigned, AS_DESIGNED } from './asDesigned';
import { FAULT_KINDS } from './catalogue';
import { COMPLAINTS, type Complaint } from '../parts/complaints';

describe('what works as designed', () => {
  it('is told only of parts the rig has and complaints that were made', () => {
    const timed = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'timed-window' });
    expect(asDesigned(timed, ['link-cycles']).map((r) => r.id)).toEqual(['timer-cycle']);
    expect(asDesigned(motorhome('t', 'T'), ['link-cycles']).map((r) => r.id)).toEqual(['delay']);
    expect(asDesigned(timed, [])).toEqual([]);
  });

  it('has something to say to every complaint of the link in every kind of rig', () => {
    for (const { id: link } of LINK_CHOICES) {
      const rig = motorhome('t', 'T', { ...USUAL_MOTORHOME, link });
      for (const c of ['coach-not-charging', 'slow-charging', 'coach-short-life'] as const)
        expect(asDesigned(rig, [c]).length, `${link}: ${c}`).toBeGreaterThan(0);
    }
  });
});

describe('the catalogues', () => {
  it('name only kinds, terminals, elements and complaints that exist', () => {
    const kinds = (k: string | readonly string[]) => (typeof k === 'string' ? [k] : k);
    for (const row of AS_DESIGNED) for (const k of row.kinds) expect(PART_KINDS.has(k), `${row.id}: ${k}`).toBe(true);
    for (const fault of FAULT_KINDS) {
      const where = `${fault.id}: ${fault.name}`;
      if ('part' in fault.owner) for (const k of kinds(fault.owner.part)) expect(PART_KINDS.has(k), where).toBe(true);
      if ('conductor' in fault.owner) {
        const { part, terminal } = fault.owner.conductor;
        // Some module of the list has the terminal; the others simply never match.
        expect(
          kinds(part).some((k) => PART_KINDS.get(k)!.terminals.some((t) => t.id === terminal)),
          where,
        ).toBe(true);
      }
      for (const c of fault.explains) expect(COMPLAINTS[c as Complaint], where).toBeDefined();
      expect(fault.minutes[0]).toBeLessThanOrEqual(fault.minutes[1]);
      expect(fault.parts[0]).toBeLessThanOrEqual(fault.parts[1]);
      expect(fault.confirm.length, where).toBeGreaterThan(10);
    }
  });

  it('leave no complaint without a fault that explains it', () => {
    for (const c of Object.keys(COMPLAINTS) as Complaint[])
      expect(
        FAULT_KINDS.some((f) => f.explains.includes(c)),
        c,
      ).toBe(true);
  });
});
