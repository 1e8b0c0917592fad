/** No root of a reflectance is taken to be less. */
export const LEAST_ROOT = 1e-4;

/**
 * Draws each overprint to what those of fewer inks let expect: not every one is printed.
 */
export function addSolidPrior(
  normal: Float64Array,
  right: Float64Array,
  solids: Float64Array,
  inks: number,
  width: number,
  penalty: number,
): void {
  const expected = expectedSolids(solids, inks);
  for (let p = 0; p < solids.length; p++) {
    if ((p & (p - 1)) === 0) continue;
    normal[p * width + p] += penalty;
    right[p] += penalty * (expected[p] - solids[p]);
  }
}

/** Roots of the solids and overprints that were printed; of the others as those let expect them. */
export function printedSolids(device: Float64Array, target: Float64Array, inks: number): Float64Array {
  const sums = new Float64Array(1 << inks);
  const counts = new Float64Array(1 << inks);
  const nearest = new Float64Array(inks);
  const rows = target.length;
  const singles = new Float64Array(inks);
  for (let row = 0; row < rows; row++) {
    let bits = 0;
    let whole = true;
    let printed = 0;
    let last = 0;
    for (let ink = 0; ink < inks; ink++) {
      const value = device[inks * row + ink];
      if (value > 0.5) bits |= 1 << ink;
      if (value > 1e-6) {
        printed++;
        last = ink;
      }
      whole &&= value < 1e-6 || value > 1 - 1e-6;
    }
    if (whole) {
      sums[bits] += target[row];
      counts[bits]++;
    }
    if (printed === 1 && device[inks * row + last] > nearest[last]) {
      nearest[last] = device[inks * row + last];
      singles[last] = target[row];
    }
  }
  // A solid that was not printed alone begins as the fullest tint of its ink.
  for (let ink = 0; ink < inks; ink++)
    if (counts[1 << ink] === 0) {
      sums[1 << ink] = singles[ink];
      counts[1 << ink] = 1;
    }
  const roots = sums.map((sum, p) => sum / Math.max(1, counts[p]));
  for (let few = 2; few <= inks; few++) {
    const expected = expectedSolids(roots, inks);
    for (let p = 0; p < roots.length; p++) if (counts[p] === 0 && bitCount(p) === few) roots[p] = expected[p];
  }
  return roots;
}

function bitCount(bits: number): number {
  let count = 0;
  for (let rest = bits; rest > 0; rest &= rest - 1) count++;
  return count;
}

/**
 * Roots of overprints as those of one and two inks fewer let expect them: an ink does beside two others what it does
 * beside each of them, in logarithms; none makes lighter.
 */
function expectedSolids(solids: Float64Array, inks: number): Float64Array {
  const log = solids.map((root) => Math.log(Math.max(LEAST_ROOT, root)));
  const out = solids.slice();
  for (let p = 0; p < solids.length; p++) {
    let sum = 0;
    let pairs = 0;
    let most = Infinity;
    for (let i = 0; i < inks; i++) {
      if (((p >> i) & 1) === 0) continue;
      const one = p & ~(1 << i);
      most = Math.min(most, log[one]);
      for (let j = 0; j < i; j++) {
        if (((p >> j) & 1) === 0) continue;
        const other = p & ~(1 << j);
        sum += log[one] + log[other] - log[one & other];
        pairs++;
      }
    }
    if (pairs > 0) out[p] = Math.exp(Math.min(most, sum / pairs));
  }
  return out;
}
