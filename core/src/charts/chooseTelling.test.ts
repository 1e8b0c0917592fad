import { describe, expect, it } from 'vitest';
import type { UncertainPoint, Uncertainty } from '../characterise/uncertainty.ts';
import { createRandom } from '../numerics/random.ts';
import { chooseTelling } from './chooseTelling.ts';

const NOISE = 0.05;
/** Points on a line whose colours go together the nearer they are. */
const points = Array.from({ length: 24 }, (_, i) => i / 23);
const together = (a: number, b: number): number => Math.exp(-(((a - b) / 0.2) ** 2));
const pointAt = (x: number, weight = 1): UncertainPoint =>
  ({ variance: 1, weight, x }) as unknown as UncertainPoint;
const xOf = (point: unknown): number => (point as { readonly x: number }).x;
const process: Uncertainty = {
  at: (device) => pointAt(device[0]),
  covariance: (a, b) => together(xOf(a), xOf(b)),
  noise: NOISE,
};

/** The same choice in the plain way: all covariances, brought up to date after each pick. */
function plainly(
  candidates: readonly number[],
  references: readonly (readonly [number, number])[],
  count: number,
  first: readonly number[],
): number[] {
  const all = [...candidates, ...references.map(([x]) => x)];
  const covariance = all.map((a) => all.map((b) => together(a, b)));
  const picked: number[] = [];
  const pick = (index: number): void => {
    const total = covariance[index][index] + NOISE;
    const own = all.map((_, i) => covariance[i][index]);
    all.forEach((_, i) => all.forEach((__, j) => (covariance[i][j] -= (own[i] * own[j]) / total)));
    picked.push(index);
  };
  const gainOf = (index: number): number =>
    references.reduce(
      (sum, [, weight], j) => sum + (weight * covariance[index][candidates.length + j]) ** 2,
      0,
    ) /
    (covariance[index][index] + NOISE);
  for (const index of first) pick(index);
  while (picked.length < first.length + count) {
    const open = [...candidates.keys()].filter((index) => !picked.includes(index));
    pick(open.reduce((best, index) => (gainOf(index) > gainOf(best) + 1e-12 ? index : best)));
  }
  return picked.slice(first.length);
}

describe('the most telling candidates', () => {
  it.each([1, 2, 3, 4, 5])('are those of the plain greedy choice, seed %i', (seed) => {
    const random = createRandom(seed);
    const references = Array.from({ length: 9 }, () => [random.uniform(), 0.5 + random.uniform()] as const);
    const first = seed % 2 === 0 ? [] : [random.below(24)];
    const chosen = chooseTelling(
      process,
      points.map((x) => pointAt(x)),
      references.map(([x, weight]) => pointAt(x, weight)),
      6,
      first,
    );
    expect(chosen).toEqual(plainly(points, references, 6, first));
    expect(chosen).toHaveLength(6);
    expect(new Set([...chosen, ...first]).size).toBe(6 + first.length);
  });

  it.each([1, 64, 65, 150])('are the same among %i candidates', (count) => {
    const random = createRandom(count);
    const candidates = Array.from({ length: count }, () => random.uniform());
    const references = Array.from({ length: 9 }, () => [random.uniform(), 0.5 + random.uniform()] as const);
    const wanted = Math.min(count, 5);
    const chosen = chooseTelling(
      process,
      candidates.map((x) => pointAt(x)),
      references.map(([x, weight]) => pointAt(x, weight)),
      wanted,
    );
    expect(chosen).toEqual(plainly(candidates, references, wanted, []));
  });

  it('are no more than there are', () =>
    expect(
      chooseTelling(
        process,
        points.slice(0, 3).map((x) => pointAt(x)),
        [pointAt(0.5)],
        9,
        [1],
      ).sort(),
    ).toEqual([0, 2]));
});
