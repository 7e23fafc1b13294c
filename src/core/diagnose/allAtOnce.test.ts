import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AllAtOnce } from './allAtOnce';
import { Posterior } from './posterior';

const WIDTH = 7;
const number = fc.double({ min: -3, max: 3, noNaN: true });
const reading = fc.record({
  row: fc.array(number, { minLength: WIDTH, maxLength: WIDTH }).map((x) => Float64Array.from(x)),
  prior: number,
  value: number,
  noise: fc.double({ min: 0.01, max: 2, noNaN: true }),
});
type Reading = { row: Float64Array; prior: number; value: number; noise: number };

/** One reading after the other, each fully trusted; the sum of log(noise / what it was expected to vary). */
function inTurn(readings: readonly Reading[]): { posterior: Posterior; volume: number } {
  const posterior = new Posterior(WIDTH);
  const pRow = new Float64Array(WIDTH);
  let volume = 0;
  for (const { row, prior, value, noise } of readings) {
    const S = posterior.variance(row, pRow) + noise;
    const expected = prior + row.reduce((sum, j, k) => sum + j * posterior.mean[k]!, 0);
    volume += Math.log(noise / S);
    posterior.absorb(pRow, value - expected, S, 1);
  }
  return { posterior, volume };
}

function together(readings: readonly Reading[]) {
  const all = new AllAtOnce(
    readings.map((r) => r.row),
    Float64Array.from(readings, (r) => r.prior),
    Float64Array.from(readings, (r) => r.value),
  );
  const expected = new Float64Array(readings.length);
  const volume = all.weigh(
    readings.map((r) => r.noise),
    expected,
  );
  const posterior = new Posterior(WIDTH);
  all.learn(posterior);
  return { posterior, volume, expected };
}

describe('readings seen all at once', () => {
  it('teach what they teach one after the other, in any number and order', () => {
    fc.assert(
      fc.property(fc.array(reading, { minLength: 1, maxLength: 12 }), reading, (readings, other) => {
        const [a, b] = [together(readings), inTurn([...readings].reverse())];
        for (let k = 0; k < WIDTH; k++) expect(a.posterior.mean[k]).toBeCloseTo(b.posterior.mean[k]!, 6);
        expect(a.posterior.variance(other.row)).toBeCloseTo(b.posterior.variance(other.row), 6);
        expect(a.volume).toBeCloseTo(b.volume, 6);
      }),
    );
  });

  it('are each expected where what was learnt puts them', () => {
    fc.assert(
      fc.property(fc.array(reading, { minLength: 1, maxLength: 12 }), (readings) => {
        const { expected, posterior } = together(readings);
        readings.forEach(({ row, prior }, r) => {
          const there = prior + row.reduce((sum, j, k) => sum + j * posterior.mean[k]!, 0);
          expect(expected[r]).toBeCloseTo(there, 6);
        });
      }),
    );
  });

  it('of which two say the same are worth one of half the noise', () => {
    const one = { row: Float64Array.of(1, 0, 0, 0, 0, 0, 0), prior: 12, value: 12.6, noise: 0.2 };
    const [twice, once] = [together([one, one]), together([{ ...one, noise: 0.1 }])];
    expect(twice.posterior.mean[0]).toBeCloseTo(once.posterior.mean[0]!, 12);
    expect(twice.posterior.variance(one.row)).toBeCloseTo(once.posterior.variance(one.row), 12);
  });
});
