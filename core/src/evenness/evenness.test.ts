import { describe, expect, it } from 'vitest';
import { evennessOf, MOST_CORRECTION, ZONES } from './evenness.ts';
import type { Evenness } from './evenness.ts';

/** Solids of each ink across the width, with this share of the middle density; paper at the end. */
function across(shareOf: (place: number) => number, present?: readonly (readonly number[])[]): Evenness {
  const places = Array.from({ length: 48 }, (_, i) => (i + 0.5) / 48);
  const patches = [0, 1, 2, 3].flatMap((ink) =>
    places.map((place) => ({ ink, place, d: 1.4 * shareOf(place) })),
  );
  const all = [...patches, { ink: -1, place: 0.5, d: 0 }];
  const device = all.flatMap(({ ink }) => [0, 1, 2, 3].map((channel) => (channel === ink ? 1 : 0)));
  const densities = all.flatMap(({ d }) => [0.1 + d, 0.1 + d, 0.1 + d, 0.1 + d]);
  const xyz = all.flatMap(({ d }) => [70, 80, 66].map((white) => white * 10 ** -d));
  return evennessOf(
    ...([device, xyz, densities].map((values) => Float64Array.from(values)) as [
      Float64Array,
      Float64Array,
      Float64Array,
    ]),
    all.map(({ place }) => place),
    present,
  );
}

describe('the correction of zones', () => {
  it('asks for more where density is missing, by the answer of the density to the amount', () => {
    const { inks } = across((place) => 1.02 - 0.04 * place);
    const [cyan] = inks;
    expect(cyan.correction).toHaveLength(ZONES);
    // Two per cent less at the right want 2 / 0.75 per cent more ink there.
    const right = 1 / (1.02 - 0.04 * (11.5 / 12)) - 1;
    expect(cyan.correction[11]).toBeCloseTo(right / 0.75, 3);
    expect(cyan.correction[0]).toBeLessThan(-0.02);
  });

  it('adds to what was in force, and holds back what goes too far', () => {
    const present = [0, 1, 2, 3].map(() => Array.from({ length: ZONES }, () => 0.05));
    const even = across(() => 1, present);
    expect(even.inks[0].correction.every((share) => Math.abs(share - 0.05) < 1e-9)).toBe(true);
    expect(even.largest).toBeLessThan(1e-9);
    const far = across((place) => 1.2 - 0.4 * place);
    expect(far.inks[0].correction[11]).toBe(MOST_CORRECTION);
    expect(far.inks[0].correction[0]).toBe(-MOST_CORRECTION);
  });

  it('needs paper', () => {
    expect(() =>
      evennessOf(
        Float64Array.of(1, 0, 0, 0),
        Float64Array.of(20, 20, 20),
        Float64Array.of(1, 0, 0, 0),
        [0.5],
      ),
    ).toThrow('without bare paper');
  });
});
