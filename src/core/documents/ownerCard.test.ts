import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { currentRevision } from '../job/job';
import { ENABLE_SCHOOLS } from '../parts/enableSchools';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { ownerCard, ownerSentences } from './ownerCard';
import { DEFAULT_SETTINGS } from '../shop/shop';

const jobs = demoJobs(new Date('2026-11-24T16:00:00Z')).slice(1);
const cards = new Map(jobs.map((j) => [currentRevision(j).doc.name, ownerCard(j, DEFAULT_SETTINGS)]));
const all = (name: string): string => JSON.stringify(cards.get(name));

describe('the owner’s card', () => {
  it('says how this rig’s batteries are joined', () => {
    expect(cards.get('Heron')!.works.join()).toContain('after about 25 s');
    expect(cards.get('Marmot')!.works.filter((w) => w.includes('one way'))).toHaveLength(2);
    for (const c of cards.values()) expect(c.works.length, c.rig).toBeGreaterThan(0);
  });

  it('tells that boost is held and never wedged, and where there is none what to do instead (common practice, no source)', () => {
    expect(cards.get('Heron')!.boost[0]).toContain('Never wedge it');
    expect(cards.get('Marmot')!.boost[0]).toContain('jumped at its posts');
  });

  it('does not let a boost be cranked through what its fuse or the bank’s protection cannot bear', () => {
    const job = jobs[0]!;
    const { doc } = currentRevision(job);
    const small = {
      ...job,
      revisions: [
        {
          ...job.revisions[0]!,
          doc: {
            ...doc,
            parts: doc.parts.map((p) =>
              p.id === 'link-fuse'
                ? {
                    ...p,
                    note: '30 A',
                    params: {
                      ...p.params,
                      ...(p.params['rating'] ? { rating: { ...p.params['rating'], value: 30 } } : {}),
                    },
                  }
                : p,
            ),
          },
        },
      ],
    };
    expect(ownerCard(small, DEFAULT_SETTINGS).boost[1]).toContain('Do not crank through it');
  });

  it.each(ENABLE_SCHOOLS.map((x) => [x.label, x.id] as const))(
    'tells when a charger enabled by %s works',
    (_, enable) => {
      const rig = coupledRig('t', 'T', { ...USUAL_COUPLED.trailer, link: 'dcdc', enable });
      const works = ownerSentences('works', rig, DEFAULT_SETTINGS).filter((w) => w.includes('DC-DC charger'));
      expect(works).toHaveLength(1);
      expect(works[0]).toMatch(/one way only/);
      if (enable === 'volts') expect(works[0]).toMatch(/120 s.*13\.8 V.*13\.2 V/);
    },
  );

  it.each(['differential', 'triggered', 'diode-lamp'] as const)(
    'tells of a %s maintainer by its own figures',
    (maintainer) => {
      const rig = motorhome('t', 'T', { ...USUAL_MOTORHOME, maintainer });
      const told = [
        ...ownerSentences('works', rig, DEFAULT_SETTINGS),
        ...ownerSentences('care', rig, DEFAULT_SETTINGS),
      ].join(' ');
      expect(told).toContain('maintainer (Maintainer)');
      expect(told).toMatch(
        { differential: /0\.75 V/, triggered: /13\.6 V.*is no fault/s, 'diode-lamp': /glows bright/ }[maintainer],
      );
    },
  );

  it('prints the thresholds of whatever decides by volts', () => {
    const job = jobs.find((j) => currentRevision(j).doc.name === 'Heron')!;
    const doc = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'bidirectional', maintainer: 'triggered' });
    const other = { ...job, revisions: [{ ...job.revisions[0]!, doc }] };
    const { settings } = ownerCard(other, DEFAULT_SETTINGS);
    expect(settings).toContain('Link module: closes at 13.00 V, opens under 12.80 V');
    expect(settings.find((x) => x.startsWith('Maintainer'))).toMatch(/starts at 13\.60 V, stops under 13\.10 V/);
  });

  it('warns of lithium’s cold limit in the shop’s unit, and of brakes where there is a tow connector', () => {
    expect(all('Wren')).toContain('32 °F');
    expect(
      JSON.stringify(
        ownerCard(
          jobs.find((j) => currentRevision(j).doc.name === 'Wren')!,
          { ...DEFAULT_SETTINGS, temperature: 'C' },
        ),
      ),
    ).toContain('0 °C');
    for (const name of ['Pika', 'Dipper', 'Marmot', 'Osprey']) expect(all(name)).toContain('breakaway');
    expect(all('Wren')).not.toContain('breakaway');
  });

  it('answers how long in hours or days, never with a bare number, and more for a longer way', () => {
    for (const c of cards.values())
      for (const h of c.hours)
        expect(h.answer).toMatch(/\d (h|min|days)|Not reached|Longer than a year|already|would not start/);
    expect(all('Wren')).toContain('from 20 % to 80 %');
  });

  it('speaks the shop’s words', () => {
    const uk = JSON.stringify(ownerCard(jobs[0]!, { ...DEFAULT_SETTINGS, vocabulary: 'europe' }));
    expect(uk).toContain('leisure');
    expect(uk).not.toContain('coach bank');
  });
});
