/**
 * Seeded random numbers. Randomness is an argument everywhere in the core, so that any run can be
 * repeated from its seed.
 */
export interface Rng {
  /** Uniform in [0, 1). */
  uniform(): number;
  /** Standard normal. */
  normal(): number;
}

/** A small 32-bit generator (mulberry32, public domain, from memory) with Box–Muller normals. */
export function seededRng(seed: number): Rng {
  let state = seed >>> 0;
  let spare: number | undefined;
  const uniform = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return {
    uniform,
    normal() {
      if (spare !== undefined) {
        const value = spare;
        spare = undefined;
        return value;
      }
      const radius = Math.sqrt(-2 * Math.log(1 - uniform()));
      const angle = 2 * Math.PI * uniform();
      spare = radius * Math.sin(angle);
      return radius * Math.cos(angle);
    },
  };
}

/** A 32-bit seed from a string (FNV-1a), so that data can name its own seed. */
export function seedFrom(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}
