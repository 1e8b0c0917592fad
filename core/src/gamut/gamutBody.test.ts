import { describe, expect, it } from 'vitest';
import { deltaE2000Of } from '../colour/deltaE2000.ts';
import { spaceToLab, SRGB } from '../chain/sourceSpaces.ts';
import type { Vector3 } from '../numerics/matrix3.ts';
import { createRandom } from '../numerics/random.ts';
import { unwrap } from '../result.ts';
import { ofStages } from '../transform/transform.ts';
import { bodyMesh, meshVolume } from './bodyMesh.ts';
import { compareBodies } from './compareBodies.ts';
import { deviceSurface } from './deviceSurface.ts';
import {
  bodyFrom,
  bodyVolume,
  commonGrey,
  gamutBody,
  hueSlice,
  lightnessSlice,
  sharedVolume,
  volumeShares,
} from './gamutBody.ts';
import { comparisonSentences, hueName } from './gamutWords.ts';
import { boundaryRadius, cubeSurface } from './radialBoundary.ts';
import { reachBeyond } from './reach.ts';

/** A ball as if it were a device: the cube's surface pushed onto a sphere. */
const ball = (name: string, radius: number, [l, a, b]: Vector3 = [50, 0, 0]) =>
  gamutBody(
    name,
    cubeSurface(33, ([x, y, z]) => {
      const d = [x - 0.5, y - 0.5, z - 0.5];
      const size = Math.hypot(...d);
      return [l + (radius * d[0]) / size, a + (radius * d[1]) / size, b + (radius * d[2]) / size];
    }),
  );
const box = (name: string, from: Vector3, to: Vector3) =>
  gamutBody(
    name,
    cubeSurface(9, (d) => d.map((share, i) => from[i] + share * (to[i] - from[i])) as unknown as Vector3),
  );
const sphereVolume = (radius: number): number => (4 / 3) * Math.PI * radius ** 3;

/** A device of four inks by a simple law: each takes light of three bands away. */
function inksToLab(seed: number) {
  const random = createRandom(seed);
  const density = Array.from(
    { length: 12 },
    (_, i) => (Math.floor(i / 3) === 3 ? 1.1 : i % 4 === 0 ? 0.8 : 0.15) * (0.8 + 0.4 * random.uniform()),
  );
  return ofStages({
    inputs: 4,
    outputs: 3,
    stride: 4,
    stages: [
      (rows, count) => {
        for (let row = 0; row < count; row++) {
          const inks = rows.slice(4 * row, 4 * row + 4);
          const f = [0, 1, 2].map((band) => {
            let d = 0.05;
            for (let ink = 0; ink < 4; ink++) d += density[3 * ink + band] * inks[ink];
            return Math.cbrt(10 ** -d);
          });
          rows.set([116 * f[1] - 16, 500 * (f[0] - f[1]), 200 * (f[1] - f[2])], 4 * row);
        }
      },
    ],
  });
}

describe('the volume of a body', () => {
  it('of balls, boxes and sRGB is the known one', () => {
    expect(bodyVolume(bodyFrom(ball('ball', 40), 50)) / sphereVolume(40)).toBeCloseTo(1, 2);
    expect(bodyVolume(bodyFrom(ball('off', 40, [50, 8, -5]), 50)) / sphereVolume(40)).toBeCloseTo(1, 2);
    expect(bodyVolume(bodyFrom(box('box', [20, -30, -30], [80, 30, 30]), 50)) / 216_000).toBeCloseTo(1, 2);
    const srgb = gamutBody('sRGB', deviceSurface(spaceToLab(SRGB)));
    expect(Math.abs(bodyVolume(bodyFrom(srgb, 50)) / 832_000 - 1)).toBeLessThan(0.01);
    expect(Math.abs(bodyVolume(bodyFrom(srgb, 65)) / 832_000 - 1)).toBeLessThan(0.01);
  });

  it('of what two share agrees with a count of small cubes', () => {
    const pairs = [
      [ball('a', 40), ball('b', 40, [50, 20, 10])],
      [ball('a', 35), box('b', [25, -20, -50], [90, 45, 15])],
      [gamutBody('sRGB', deviceSurface(spaceToLab(SRGB))), gamutBody('inks', deviceSurface(inksToLab(3), 3))],
    ] as const;
    for (const [a, b] of pairs) {
      const grey = commonGrey([a, b]) ?? NaN;
      const [first, second] = [bodyFrom(a, grey), bodyFrom(b, grey)];
      let count = 0;
      const edge = 1.5;
      for (let l = edge / 2; l < 100; l += edge)
        for (let x = -110 + edge / 2; x < 110; x += edge)
          for (let y = -120 + edge / 2; y < 120; y += edge) {
            const away = Math.hypot(l - grey, x, y);
            if (away <= boundaryRadius(first, [l, x, y]) && away <= boundaryRadius(second, [l, x, y]))
              count++;
          }
      expect(Math.abs(sharedVolume(first, second) / (count * edge ** 3) - 1)).toBeLessThan(0.01);
    }
  });

  it('is shared out over hues and lightness without loss', () => {
    const [a, b] = [ball('a', 40), ball('b', 30, [55, 10, 0])].map((body) => bodyFrom(body, 50));
    const shares = volumeShares(a, b);
    const sum = (of: 'a' | 'b' | 'both') => shares.reduce((total, share) => total + share[of], 0);
    expect(sum('a') / bodyVolume(a)).toBeCloseTo(1, 3);
    expect(sum('b') / bodyVolume(b)).toBeCloseTo(1, 3);
    expect(sum('both') / sharedVolume(a, b)).toBeCloseTo(1, 3);
    // A ball about the axis has as much in every sector, and nothing above L* 90 or below 10.
    const bySector = shares.filter(({ band }) => band === 2).map((share) => share.a);
    expect(Math.max(...bySector) / Math.min(...bySector)).toBeLessThan(1.01);
    expect(shares.filter(({ band }) => band === 4).reduce((total, share) => total + share.a, 0)).toBeLessThan(
      shares.filter(({ band }) => band === 3).reduce((total, share) => total + share.a, 0),
    );
  });

  it('is compared from one grey only', () => {
    expect(() => sharedVolume(bodyFrom(ball('a', 40), 50), bodyFrom(ball('a', 40), 51))).toThrow(RangeError);
  });
});

describe('the surface of a body', () => {
  it.each(Array.from({ length: 20 }, (_, seed) => seed + 1))(
    'is watertight and looks outwards, device %i',
    (seed) => {
      const totalInk = [4, 3.2, 2.6, 2][seed % 4];
      const body = gamutBody('inks', deviceSurface(inksToLab(seed), totalInk));
      const boundary = bodyFrom(body, (body.darkest + body.lightest) / 2);
      expect(boundary.radius.every((radius) => radius > 0 && Number.isFinite(radius))).toBe(true);
      const mesh = bodyMesh(boundary);
      // Each edge once in each direction.
      const points = mesh.lab.length / 3;
      const edges = new Set<number>();
      for (let t = 0; t < mesh.corners.length; t += 3)
        for (let side = 0; side < 3; side++)
          edges.add(points * mesh.corners[t + side] + mesh.corners[t + ((side + 1) % 3)]);
      expect(edges.size).toBe(mesh.corners.length);
      const open = [...edges].filter(
        (edge) => !edges.has(points * (edge % points) + Math.floor(edge / points)),
      );
      expect(open).toEqual([]);
      expect(meshVolume(mesh)).toBeGreaterThan(0);
      expect(meshVolume(mesh) / bodyVolume(boundary)).toBeCloseTo(1, 1);
    },
  );

  it('of inks ends where their sum does: no point that prints lies outside, and the surface is reached', () => {
    const toLab = inksToLab(5);
    const random = createRandom(9);
    const body = gamutBody('inks', deviceSurface(toLab, 1.5));
    const boundary = bodyFrom(body, (body.darkest + body.lightest) / 2);
    const lab = new Float64Array(3);
    let farthest = 0;
    for (let i = 0; i < 4000;) {
      const inks = Float64Array.from({ length: 4 }, () => random.uniform());
      if (inks.reduce((a, b) => a + b, 0) > 1.5) continue;
      toLab.apply(inks, lab);
      const away = Math.hypot(lab[0] - boundary.centre[0], lab[1], lab[2]);
      farthest = Math.max(farthest, away - boundaryRadius(boundary, [lab[0], lab[1], lab[2]]));
      i++;
    }
    expect(farthest).toBeLessThan(1);
    const unlimited = bodyFrom(gamutBody('all', deviceSurface(toLab)), boundary.centre[0]);
    expect(bodyVolume(boundary)).toBeLessThan(0.98 * bodyVolume(unlimited));
  });

  it('of inks with limits of their own ends at them: no point within lies outside, and full inks would reach farther', () => {
    const toLab = inksToLab(6);
    const most = [0.7, 1, 0.8, 0.5];
    const random = createRandom(10);
    const body = gamutBody('inks', deviceSurface(toLab, 2.2, most));
    const boundary = bodyFrom(body, (body.darkest + body.lightest) / 2);
    const lab = new Float64Array(3);
    let farthest = 0;
    for (let i = 0; i < 4000;) {
      const inks = Float64Array.from(most, (limit) => limit * random.uniform());
      if (inks.reduce((a, b) => a + b, 0) > 2.2) continue;
      toLab.apply(inks, lab);
      const away = Math.hypot(lab[0] - boundary.centre[0], lab[1], lab[2]);
      farthest = Math.max(farthest, away / boundaryRadius(boundary, [lab[0], lab[1], lab[2]]));
      i++;
    }
    // Directions every two degrees blunt a sharp corner by so much.
    expect(farthest).toBeLessThan(1.03);
    expect(farthest).toBeGreaterThan(0.97);
    const full = bodyFrom(gamutBody('full', deviceSurface(toLab, 2.2)), boundary.centre[0]);
    expect(bodyVolume(boundary)).toBeLessThan(0.95 * bodyVolume(full));
  });

  it('has slices that lie on it', () => {
    const boundary = bodyFrom(ball('ball', 40), 50);
    for (const chroma of lightnessSlice(boundary, 74)) expect(chroma).toBeCloseTo(32, 0);
    expect(Math.max(...lightnessSlice(boundary, 95))).toBe(0);
    for (const [l, chroma] of hueSlice(boundary, 123)) expect(Math.hypot(l - 50, chroma)).toBeCloseTo(40, 0);
  });

  it('refuses what makes no body', () => {
    const one = ofStages({ inputs: 1, outputs: 3, stride: 3, stages: [] });
    expect(() => deviceSurface(one)).toThrow(/1 channels, expected 3 to 8/);
  });
});

describe('the reach beyond a body', () => {
  it('is the least ΔE00 to its surface, as a search of all of it finds', () => {
    const srgb = bodyFrom(gamutBody('sRGB', deviceSurface(spaceToLab(SRGB))), 50);
    const random = createRandom(4);
    const outside: number[] = [];
    while (outside.length < 300) {
      const lab: Vector3 = [
        10 + 85 * random.uniform(),
        260 * random.uniform() - 130,
        260 * random.uniform() - 130,
      ];
      const away = Math.hypot(lab[0] - 50, lab[1], lab[2]);
      const radius = boundaryRadius(srgb, lab);
      if (away > radius && away < 1.4 * radius) outside.push(...lab);
    }
    const all = bodyMesh(srgb).lab;
    const found = reachBeyond(outside, srgb);
    const misses = [...found].map((own, i) => {
      let least = Infinity;
      for (let at = 0; at < all.length; at += 3)
        least = Math.min(
          least,
          deltaE2000Of(
            outside[3 * i],
            outside[3 * i + 1],
            outside[3 * i + 2],
            all[at],
            all[at + 1],
            all[at + 2],
          ),
        );
      return own - least;
    });
    expect(misses.filter((miss) => miss > 0.1).length).toBeLessThanOrEqual(3);
  });

  it('is nothing inside, and grows outside', () => {
    const boundary = bodyFrom(ball('ball', 40), 50);
    const reach = reachBeyond([50, 39, 0, 50, 45, 0, 50, 60, 0], boundary);
    expect(reach[0]).toBe(0);
    expect(reach[1]).toBeGreaterThan(0.5);
    expect(reach[2]).toBeGreaterThan(reach[1]);
  });
});

describe('two bodies beside each other', () => {
  it('say what one prints that the other does not, and whether one would see it', () => {
    const { a, b, shared, grey } = unwrap(compareBodies(ball('Wren', 45), ball('Heron', 40)));
    expect(grey).toBeCloseTo(50, 0);
    expect(a.volume / shared).toBeCloseTo((45 / 40) ** 3, 1);
    const [first, second] = comparisonSentences({ a, b, shared, grey, shares: [] });
    expect(first).toMatch(
      /^30 % of the colours of Wren is out of reach for Heron, farthest in .* by \d+\.\d ΔE00; one would see it/,
    );
    expect(second).toBe('Heron holds no colour that Wren does not.');
  });

  it.each([
    [0.4, /nobody would see it/],
    [3.5, /side by side/],
    [14, /in a print/],
  ])('know whether %f more of radius is seen', (more, words) => {
    const { a, b, shared } = unwrap(compareBodies(ball('a', 40 + more), ball('b', 40)));
    expect(comparisonSentences({ a, b, shared, grey: 50, shares: [] })[0]).toMatch(words);
  });

  it('are refused in words where they share no lightness', () => {
    const apart = compareBodies(ball('dark', 10, [15, 0, 0]), ball('light', 10, [85, 0, 0]));
    expect(apart.ok).toBe(false);
    expect(!apart.ok && apart.issues[0]).toMatchObject({ path: 'light', found: 'L* 75 to 95' });
  });

  it('name hues as one says them', () => {
    const solids = [
      [68, 48],
      [-5, 93],
      [-66, 26],
      [-36, -51],
      [20, -46],
      [74, -4],
    ];
    expect(solids.map(([a, b]) => hueName(a, b))).toEqual([
      'red',
      'yellow',
      'green',
      'cyan',
      'blue',
      'magenta',
    ]);
    expect(hueName(Math.cos(0.26), -Math.sin(0.26))).toBe('magenta');
    expect(hueName(Math.cos(0.27), -Math.sin(0.27))).toBe('purple');
  });
});
