/** Banks and a transient run in ngspice: the same equations as the simulation's, written as a deck. */
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chemistryOf } from '../src/core/parts/chemistry';

export interface Bank {
  name: 'a' | 'b';
  chemistry: 'flooded' | 'agm' | 'lfp';
  ah: number;
  soc: number;
}

/** A bank as SPICE: charge and the two polarisations are capacitors of one farad, fed what changes them a second. */
export function bankDeck({ name: n, chemistry, ah, soc }: Bank): string[] {
  const c = chemistryOf(chemistry);
  const i = `i(Vm_${n})`;
  const g = `(${i}>=0 ? ${c.chargeOvervolts} : ${c.dischargeOvervolts})*asinh(${i}/${c.exchangePerAh * ah})`;
  const [[f1, t1], [f2, t2]] = c.builds as unknown as [[number, number], [number, number]];
  const s = `v(s_${n})`;
  const stored =
    c.taperTimesAh === 0 ? `${c.efficiency}` : `${c.efficiency}*(${s}<=0.85 ? 1 : max(0.1,1-6*(${s}-0.85)))`;
  const i20 = ah / 20;
  return [
    `.ic v(s_${n})=${soc} v(p1_${n})=0 v(p2_${n})=0 v(q_${n})=0`,
    `Cs_${n} s_${n} 0 1`,
    `Bs_${n} 0 s_${n} I=${i}/(3600*${ah})*(${i}>=0 ? ${stored} : (-${i}>${i20} ? ` +
      `pow(-${i}/${i20},${c.peukert - 1}) : 1))-${c.selfDischargePerDay / 86_400}`,
    `C1_${n} p1_${n} 0 1`,
    `B1_${n} 0 p1_${n} I=(${f1}*${g}-v(p1_${n}))/${t1}`,
    `C2_${n} p2_${n} 0 1`,
    `B2_${n} 0 p2_${n} I=(${f2}*${g}-v(p2_${n}))/${t2}`,
    `Vm_${n} plus_${n} m_${n} 0`,
    `Be_${n} m_${n} minus_${n} ` +
      `V=pwl(${s},${c.restVolts.map(([x, v]) => `${x},${v}`).join(',')})+v(p1_${n})+v(p2_${n})` +
      `+${i}*(${c.ohmsTimesAh / ah}*(1+${c.grows}*pow(1-${s},2))+(${i}>0 ` +
      `? ${c.taperTimesAh / ah}/max(0.005,1.005-${s}) : 0))`,
    `Cq_${n} q_${n} 0 1`,
    `Bq_${n} 0 q_${n} I=${i}/3600`,
  ];
}

/**
 * Runs a deck in a folder; rows of time and the asked vectors. `options` are
 * ngspice's own, `longest` its longest step in s; `again` repeats the analysis, to be timed without the start.
 */
export function transient(
  folder: string,
  name: string,
  lines: string[],
  seconds: number,
  vectors: string[],
  options = 'reltol=1e-5 abstol=1e-9 vntol=1e-7 method=gear',
  longest: number | undefined = seconds / 1000,
  again = 0,
): number[][] {
  const out = join(folder, `${name}.txt`);
  const deck = [
    `* ${name}`,
    ...lines,
    `.options ${options}`,
    '.control',
    'set wr_singlescale',
    'set wr_vecnames',
    'set numdgt=10',
    ...Array.from(
      { length: 1 + again },
      () => `tran ${seconds / 2000} ${seconds}${longest === undefined ? '' : ` 0 ${longest}`}`,
    ),
    `wrdata ${out} ${vectors.join(' ')}`,
    'quit 0',
    '.endc',
    '.end',
    '',
  ].join('\n');
  const file = join(folder, `${name}.cir`);
  writeFileSync(file, deck);
  execFileSync('ngspice', ['-b', file], { timeout: 120_000, stdio: 'pipe' });
  return readFileSync(out, 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((l) => l.trim().split(/\s+/).map(Number));
}
