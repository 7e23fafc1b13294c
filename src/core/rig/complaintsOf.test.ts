/** What the owners of different rigs say: common practice, no source. */
import { describe, expect, it } from 'vitest';
import { coupledRig, USUAL_COUPLED } from './archetypes/coupled';
import { motorhome, USUAL_MOTORHOME } from './archetypes/motorhome';
import { EVERY_RIG } from '../../../tests/everyRig';
import { COMPLAINTS, type Complaint } from '../parts/complaints';
import { complaintSays, complaintsOf } from './complaintsOf';

const said = (rig: Parameters<typeof complaintSays>[1]) => complaintsOf(rig).map((c) => complaintSays(c, rig));

describe('complaints', () => {
  it('of a motorhome are the usual ones', () => {
    const rig = motorhome('m', 'M');
    expect(said(rig)).toEqual(
      (Object.keys(COMPLAINTS) as Complaint[]).filter((c) => !c.startsWith('fridge')).map((c) => COMPLAINTS[c]),
    );
  });

  it('of a trailer are about the trailer’s bank, and none of boost', () => {
    const words = said(coupledRig('t', 'T', USUAL_COUPLED['trailer']));
    expect(words).toContain('Trailer bank does not charge on the road');
    expect(words.join(' ')).not.toMatch(/Coach|Boost|banks/);
  });

  it('of a towed car are a driver’s', () => {
    const words = said(coupledRig('c', 'C', USUAL_COUPLED['towed-car']));
    expect(words[0]).toBe('Car dead on arrival');
    expect(words.join(' ')).not.toMatch(/night|living space|shore/);
  });

  it('speak of the charger where that is the link', () => {
    const rig = motorhome('d', 'D', { ...USUAL_MOTORHOME, link: 'dcdc', boost: false });
    expect(complaintSays('hot-link', rig)).toBe('DC-DC charger hot, or it smells');
    expect(complaintSays('link-cycles', rig)).toBe('DC-DC charger switches on and off');
    expect(complaintsOf(rig)).not.toContain('boost-dead');
  });

  it.each(EVERY_RIG)('%s: something is offered, each in words of its own, none of what it lacks', (_, rig) => {
    const words = said(rig);
    expect(words.length).toBeGreaterThan(3);
    expect(new Set(words).size).toBe(words.length);
    const names = rig.parts.map((p) => p.name).join(' ');
    for (const w of words) if (w.includes('Coach bank')) expect(names).toContain('Coach bank');
    if (!names.toLowerCase().includes('fridge')) expect(words.join(' ')).not.toContain('Fridge');
  });
});
