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
  const heat = (x: number) => radiates * (x * x * x * x - 1) + conducts * (x - 1);
  // V²/R(T) falls with T while the heat rises: one crossing, found by Newton held in a bracket. What it radiates alone
  // is close to all of its heat where it is hot, and near the ambient nothing else is far off.
  let x = (1 + (v * v) / (radiates * cold)) ** (1 / (4 + WATTS_EXPONENT));
  let r = cold * x ** WATTS_EXPONENT;
  let low = 1;
  let high = x * 2;
  while (heat(high) * cold * high ** WATTS_EXPONENT < v * v) high *= 1.5;
  for (let k = 0; k < 60; k++) {
    const watt = heat(x);
    const f = watt * r - v * v;
    if (f > 0) high = x;
    else low = x;
    const slope = (4 * radiates * x * x * x + conducts) * r + (watt * WATTS_EXPONENT * r) / x;
    let next = x - f / slope;
    if (!(next > low && next < high)) next = (low + high) / 2;
    const settled = Math.abs(next - x) < 1e-13 * x;
    x = next;
    r = cold * x ** WATTS_EXPONENT;
    if (settled) break;
  }
  const heats = 4 * radiates * x * x * x + conducts;
  // dI/dV = 1/R − (V/R²)·dR/dT·dT/dV with dT/dV from the balance.
  const dRdx = (WATTS_EXPONENT * r) / x;
  const dxdv = (2 * v) / (heats * r + heat(x) * dRdx);
  out[0] = u / r;
  out[1] = 1 / r - (v / (r * r)) * dRdx * dxdv;
}
