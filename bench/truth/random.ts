/** Chance of the independent truths: a generator of their own, so that no draw is shared with what they examine. */
export class Chance {
  private s: Uint32Array;

  constructor(seed: number) {
    // Four words by an additive counter and a multiplicative hash, then xoshiro128** (Blackman, Vigna; from memory).
    this.s = new Uint32Array(4);
    let x = seed >>> 0;
    for (let i = 0; i < 4; i++) {
      x = (x + 0x9e3779b9) >>> 0;
      let z = Math.imul(x ^ (x >>> 16), 0x21f0aaad);
      z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
      this.s[i] = (z ^ (z >>> 15)) >>> 0;
    }
    for (let i = 0; i < 8; i++) this.unit();
  }

  /** Even over 0…1. */
  unit(): number {
    const s = this.s;
    const r = Math.imul(s[1]!, 5);
    const result = Math.imul((r << 7) | (r >>> 25), 9) >>> 0;
    const t = s[1]! << 9;
    s[2]! ^= s[0]!;
    s[3]! ^= s[1]!;
    s[1]! ^= s[2]!;
    s[0]! ^= s[3]!;
    s[2]! ^= t;
    s[3] = (s[3]! << 11) | (s[3]! >>> 21);
    return result / 4294967296;
  }

  between(lo: number, hi: number): number {
    return lo + (hi - lo) * this.unit();
  }

  /** Even on a logarithmic scale: for ohms that may be one or a hundred. */
  decades(lo: number, hi: number): number {
    return lo * Math.pow(hi / lo, this.unit());
  }

  /** Bell-shaped about zero, standard deviation one (Box and Muller). */
  bell(): number {
    return Math.sqrt(-2 * Math.log(1 - this.unit())) * Math.cos(2 * Math.PI * this.unit());
  }

  /** True so often. */
  happens(share: number): boolean {
    return this.unit() < share;
  }

  oneOf<T>(list: readonly T[]): T {
    return list[Math.floor(this.unit() * list.length)]!;
  }
}
