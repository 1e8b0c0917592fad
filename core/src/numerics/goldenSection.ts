const GOLDEN = (Math.sqrt(5) - 1) / 2;

/**
 * Where the least value of a function lies between two ends, if it has one valley there. Each round leaves 0.618 of what
 * lay between them.
 */
export function goldenSection(f: (x: number) => number, from: number, to: number, rounds: number): number {
  let [a, b] = [from, to];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [fc, fd] = [f(c), f(d)];
  for (let i = 0; i < rounds; i++) {
    if (fc < fd) {
      [b, d, fd] = [d, c, fc];
      c = b - GOLDEN * (b - a);
      fc = f(c);
    } else {
      [a, c, fc] = [c, d, fd];
      d = a + GOLDEN * (b - a);
      fd = f(d);
    }
  }
  return (a + b) / 2;
}
