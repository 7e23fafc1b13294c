/** That the independent truths obey physics: Kirchhoff by ngspice, charge conserved, memory that fades. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { KINETIC } from '../../bench/truth/kineticLaws';
import { copper, type BatterySpec } from '../../bench/truth/laws';
import { Network, type Device } from '../../bench/truth/network';
import { Chance } from '../../bench/truth/random';
import { SHELL } from '../../bench/truth/shellLaws';
import { TAFEL } from '../../bench/truth/tafelLaws';

/** A source behind a resistance. */
const emf = (plus: number, minus: number, volts: number, ohms: number): Device => ({
  plus,
  minus,
  push: (v) => ({ amps: (volts - v) / ohms, slope: 1 / ohms }),
  remember: () => undefined,
});

describe('the network', () => {
  it('has the volts ngspice has, on a ladder of thirty nodes with two sources', () => {
    const chance = new Chance(5);
    const net = new Network();
    net.node('0');
    const lines: string[] = ['* ladder'];
    for (let n = 1; n <= 30; n++) {
      const along = chance.decades(1e-4, 10);
      const down = chance.decades(0.1, 1e4);
      net.resistor(String(n - 1 || 'a'), String(n), along);
      net.resistor(String(n), '0', down);
      lines.push(`Ra${n} ${n - 1 || 'a'} ${n} ${along}`, `Rd${n} ${n} 0 ${down}`);
    }
    net.devices.push(emf(net.node('a'), 0, 12.6, 0.004), emf(net.node('30'), 0, 13.9, 0.02));
    lines.push('V1 x 0 12.6', 'R1 x a 0.004', 'V2 y 0 13.9', 'R2 y 30 0.02', '.options rshunt=5e6', '.op');
    lines.push(`.print op ${Array.from({ length: 30 }, (_, i) => `v(${i + 1})`).join(' ')}`, '.end');
    net.solve(1);
    const folder = mkdtempSync(join(tmpdir(), 'ladder-'));
    try {
      writeFileSync(join(folder, 'l.cir'), lines.join('\n'));
      const said = execFileSync('ngspice', ['-b', join(folder, 'l.cir')], { encoding: 'utf8', stdio: 'pipe' });
      const volts = [...said.matchAll(/^v\((\d+)\)\s*=?\s*([-\d.e+]+)|^\t?V\((\d+)\)\s+([-\d.e+]+)/gim)];
      expect(volts.length).toBeGreaterThanOrEqual(30);
      for (const [, a, x, b, y] of volts) expect(net.at((a ?? b)!)).toBeCloseTo(Number(x ?? y), 3);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
});

describe.each([TAFEL, KINETIC, SHELL])('batteries of the form $name', (laws) => {
  const spec = (over: Partial<BatterySpec> = {}): BatterySpec => ({
    chemistry: 'flooded',
    ah: 100,
    volts: 12,
    cca: 0,
    filled: 0.5,
    worn: 1.2,
    celsius: 25,
    ...over,
  });
  const alone = (s: BatterySpec) => {
    const net = new Network();
    net.node('0');
    const battery = laws.battery(net.node('+'), 0, s, new Chance(1));
    net.devices.push(battery);
    return { net, battery };
  };

  it('give back no more charge than was in them', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('flooded', 'agm', 'gel', 'lfp'),
        fc.double({ min: 0.3, max: 0.9, noNaN: true }),
        (chemistry, filled) => {
          const { net, battery } = alone(spec({ chemistry, filled }));
          net.resistor('+', '0', 2);
          let given = 0;
          for (let t = 0; t < 60; t++) {
            net.step(30);
            given += (net.at('+') / 2) * 30;
          }
          expect(given / 3600 / 100).toBeCloseTo(filled - battery.filled, 3);
        },
      ),
      { numRuns: 12 },
    );
  });

  it('stand above rest after a charge, and come down', () => {
    const { net, battery } = alone(spec());
    net.step(60);
    const rest = net.at('+');
    const charger = emf(net.node('+'), 0, 14.2, 0.02);
    net.devices.push(charger);
    for (let t = 0; t < 20; t++) net.step(30);
    expect(battery.filled).toBeGreaterThan(0.5);
    net.devices.pop();
    net.step(30);
    const after = net.at('+');
    for (let t = 0; t < 200; t++) net.step(60);
    expect(after).toBeGreaterThan(rest + 0.05);
    expect(net.at('+')).toBeLessThan(after - 0.05);
    expect(net.at('+')).toBeGreaterThan(rest - 0.02);
  });

  it('rest where handbooks say: 12.0 to 12.4 V half full, 12.6 to 12.8 full, flooded; 13.0 to 13.4 half full, lithium', () => {
    const at = (over: Partial<BatterySpec>) => {
      const { net } = alone(spec(over));
      net.step(1);
      return net.at('+');
    };
    expect(at({ filled: 0.5 })).toBeGreaterThan(12);
    expect(at({ filled: 0.5 })).toBeLessThan(12.4);
    expect(at({ filled: 0.99 })).toBeGreaterThan(12.6);
    expect(at({ filled: 0.99 })).toBeLessThan(12.8);
    expect(at({ chemistry: 'lfp' })).toBeGreaterThan(12.9);
    expect(at({ chemistry: 'lfp' })).toBeLessThan(13.4);
  });
});

describe('copper', () => {
  it('is that of the wire tables: 10 AWG 3.28 and 1/0 0.322 ohms a kilometer at 20 °C (solid, ASTM B258)', () => {
    expect(copper('10', 1000, 20) / 1.03).toBeCloseTo(3.277, 2);
    expect(copper('1/0', 1000, 20) / 1.03).toBeCloseTo(0.3224, 3);
  });
});
