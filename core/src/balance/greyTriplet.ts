/**
 * Magenta and yellow of the near-neutral scale for a cyan value (ISO/TS 10128), all 0..1:
 * 0.25 → 0.189, 0.50 → 0.400, 0.75 → 0.661, 1 → 1.
 */
export function greyMagentaYellow(cyan: number): number {
  const c = cyan * 100;
  return Math.min(1, Math.max(0, (0.747 * c - 4.1e-4 * c * c + 2.94e-5 * c * c * c) / 100));
}

/** Cyan value whose grey triplet has this magenta (and yellow); the inverse of `greyMagentaYellow`. */
export function greyCyan(magentaYellow: number): number {
  let low = 0;
  let high = 1;
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (greyMagentaYellow(middle) < magentaYellow) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
