import { describe, expect, it } from 'vitest';
import { VARIETY } from '../../../tests/motorhomes';
import { LINK_CHOICES } from '../rig/archetypes/choices';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { PART_KINDS } from '../parts/kinds';
import { asDesigned, AS_DESIGNED } from './asDesigned';
import { METAL_FAULTS } from './catalogue/metal';
import { rigFaults } from './faults';
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

const KINDS = [...PART_KINDS.values()];
const ROWS = [...KINDS.flatMap((k) => k.faults), ...METAL_FAULTS];

describe('the catalogues', () => {
  it('name only traits that some kind has', () => {
    for (const row of AS_DESIGNED)
      for (const trait of [...row.of, ...(row.also ? [row.also] : []), ...(row.fedBy ? [row.fedBy] : [])])
        expect(
          KINDS.some((k) => k.traits[trait] !== undefined),
          `${row.id}: ${trait}`,
        ).toBe(true);
  });

  it.each(KINDS.flatMap((k) => k.faults.map((f) => [`${k.id}: ${f.id}`, k, f] as const)))(
    '%s works on terminals, elements, parameters and choices its kind has',
    (_, kind, fault) => {
      if (fault.wire) expect(kind.terminals.map((t) => t.id)).toContain(fault.wire.terminal);
      if (fault.option) {
        const choices = kind.options![fault.option.name]!.choices.map((c) => c.id);
        for (const id of fault.option.is) expect(choices).toContain(id);
      }
      const elements = kind.elements.map((e) => e.id);
      for (const e of fault.effects) {
        if ('param' in e) expect(Object.keys(kind.params)).toContain(e.param);
        else if ('element' in e && !fault.wire) expect(elements).toContain(e.element.split('.')[0]);
        else if ('element' in e) expect(e.element, 'a wire has no elements of its own').toBe('');
        if (e.do === 'dead-controller') expect(kind.controller).toBeDefined();
        if (e.do === 'open-battery') expect(kind.traits.battery).toBe(true);
      }
    },
  );

  it('say of every fault what it explains, how long it takes and how it is proved', () => {
    for (const fault of ROWS) {
      const where = `${fault.id}: ${fault.name}`;
      for (const c of fault.explains) expect(COMPLAINTS[c as Complaint], where).toBeDefined();
      expect(fault.minutes[0]).toBeLessThanOrEqual(fault.minutes[1]);
      expect(fault.parts[0]).toBeLessThanOrEqual(fault.parts[1]);
      expect(fault.confirm.length, where).toBeGreaterThan(10);
    }
  });

  it('put the owner’s name into every text of a fault', () => {
    for (const choices of VARIETY)
      for (const f of rigFaults(motorhome('t', 'T', choices)))
        for (const text of [f.name, f.class, f.repair, f.shows, f.confirm ?? '', f.caution ?? ''])
          expect(text, f.id).not.toMatch(/[{}]/);
  });

  it('leave no complaint without a fault that explains it', () => {
    for (const c of Object.keys(COMPLAINTS) as Complaint[])
      expect(
        ROWS.some((f) => f.explains.includes(c)),
        c,
      ).toBe(true);
  });
});
