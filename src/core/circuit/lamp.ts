/**
 * A filament lamp by its energy balance: what it takes it radiates and conducts.
 *
 *   V·I = a·(T⁴ − T0⁴) + b·(T − T0)        R = R0·(T/T0)^1.2
 *
 * At its rated volts it is 14.6 times its cold resistance and conducts a tenth of its heat away. Near one volt
 * that is twice the current a power law through the rated point gives. Resistivity exponent, cold ratio and
 * conducted share from memory.
 */
const WATTS_EXPONENT = 1.2;
const HOT_OVER_COLD = 14.6;
const CONDUCTED = 0.1;

/** Temperature ratio T/T0 at rated volts. */
export const HOT = HOT_OVER_COLD ** (1 / WATTS_EXPONENT);

/** Coefficients of a lamp in units of T0: cold ohms, radiated and conducted watts. */
export function lampCoefficients(volts: number, watts: number): { cold: number; radiates: number; conducts: number } {
  return {
    cold: (volts * volts) / watts / HOT_OVER_COLD,
    radiates: ((1 - CONDUCTED) * watts) / (HOT ** 4 - 1),
    conducts: (CONDUCTED * watts) / (HOT - 1),
  };
}

/**
 * Amps of a lamp at a voltage, and their slope, into `out[0]` and `out[1]`; odd in u.
 * @param volts rated volts. @param watts rated watts.
 */
export function lampCurrent(volts: number, watts: number, u: number, out: Float64Array): void {
  const { cold, radiates, conducts } = lampCoefficients(volts, watts);
  const v = Math.abs(u);
  // V²/R(T) falls with T while the heat rises: one crossing, found by Newton on log V² held in a bracket.
  let low = 1;
  let high = Math.max(HOT, 1.5);
  const heat = (x: number) => radiates * (x ** 4 - 1) + conducts * (x - 1);
  while (heat(high) * cold * high ** WATTS_EXPONENT < v * v) high *= 1.5;
  let x = Math.min(high, 1 + (v / volts) ** 0.5 * (HOT - 1));
  for (let k = 0; k < 60; k++) {
    const r = cold * x ** WATTS_EXPONENT;
    const f = heat(x) * r - v * v;
    if (f > 0) high = x;
    else low = x;
    const slope = (4 * radiates * x ** 3 + conducts) * r + (heat(x) * WATTS_EXPONENT * r) / x;
    let next = x - f / slope;
    if (!(next > low && next < high)) next = (low + high) / 2;
    if (Math.abs(next - x) < 1e-13 * x) break;
    x = next;
  }
  const r = cold * x ** WATTS_EXPONENT;
  const heats = 4 * radiates * x ** 3 + conducts;
  // dI/dV = 1/R − (V/R²)·dR/dT·dT/dV with dT/dV from the balance.
  const dRdx = (WATTS_EXPONENT * r) / x;
  const dxdv = (2 * v) / (heats * r + heat(x) * dRdx);
  out[0] = u / r;
  out[1] = 1 / r - (v / (r * r)) * dRdx * dxdv;
}
