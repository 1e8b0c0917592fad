import { describe, expect, it } from 'vitest';
import type { Xyz } from '../colour/xyz.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { createRandom } from '../numerics/random.ts';
import {
  estimateUvShare,
  LEAST_TURN,
  MOST_EYES,
  MOST_LEFT_OVER,
  STUDY_FIELDS,
  STUDY_LIGHTNESSES,
  STUDY_ROUNDS,
  studyFields,
} from './brightenerStudy.ts';
import type { StudyPage, StudyPick } from './brightenerStudy.ts';

const fields = studyFields();
const white = WHITE_D50_MEASURED;

/** A page whose fields are what they are to be in D50, and whose blue falls by so much of Z without ultraviolet. */
function pageOf(glow: number): StudyPage {
  const lit = fields.map(({ lab }) => labToXyz(lab, white));
  const added = Float64Array.from(lit.flatMap(([, y, z]) => [0.1 * glow * y * 0.01, 0, glow * z * 0.01]));
  return { white, added, without: Float64Array.from(lit.flat()).map((value, i) => value - added[i]) };
}

/** What an eye picks that scatters by so much in a* and b*. */
function picksOf(page: StudyPage, share: number, scatter: number, seed: number, cast = 0): StudyPick[] {
  const random = createRandom(seed);
  const chroma = fields.map((_, i) => {
    const at = (axis: number): number => page.without[3 * i + axis] + share * page.added[3 * i + axis];
    const [, a, b] = xyzToLab([at(0), at(1), at(2)] as Xyz, white);
    return [a, b + cast] as const;
  });
  return Array.from({ length: STUDY_ROUNDS }, () =>
    STUDY_LIGHTNESSES.map((_, row) => {
      const [ea, eb] = [scatter * random.normal(), scatter * random.normal()];
      const away = (i: number): number => Math.hypot(chroma[i][0] - ea, chroma[i][1] - eb);
      const own = fields.flatMap((field, i) => (field.row === row ? [i] : []));
      return fields[own.reduce((best, i) => (away(i) < away(best) ? i : best))];
    }),
  ).flat();
}

describe('a brightener study', () => {
  it('has rows of greys by small steps, the one that is neutral in D50 among them', () => {
    expect(fields).toHaveLength(STUDY_LIGHTNESSES.length * STUDY_FIELDS);
    for (const row of STUDY_LIGHTNESSES.keys()) {
      const own = fields.filter((field) => field.row === row);
      expect(own.filter(({ lab }) => lab[1] === 0 && lab[2] === 0)).toHaveLength(1);
      expect(own.every(({ lab }) => lab[0] === STUDY_LIGHTNESSES[row])).toBe(true);
    }
  });

  it.each([0, 0.1, 0.35, 0.6, 0.85, 1, 1.2])('finds a share of %d again from a steady eye', (share) => {
    const page = pageOf(7);
    const found = estimateUvShare(page, fields, picksOf(page, share, 0, 1));
    expect(Math.abs(found.share - share)).toBeLessThan(0.06);
    expect(found.tells).toBe(true);
    expect(found.scatter).toBe(0);
    // The glow adds some red, which the blue steps of the fields do not take away.
    expect(found.leftOver).toBeLessThan(1.2);
  });

  it('is within 0.1 in nine of ten from eyes that scatter, and says how sure it is', () => {
    const page = pageOf(7);
    let [near, within] = [0, 0];
    for (let k = 0; k < 100; k++) {
      const share = (1.2 * k) / 99;
      const found = estimateUvShare(page, fields, picksOf(page, share, 0.4, 40_000 + k));
      if (Math.abs(found.share - share) <= 0.1) near++;
      if (found.range[0] <= share && share <= found.range[1]) within++;
    }
    expect(near).toBeGreaterThanOrEqual(90);
    // Nine of ten by its own word; binomial, 100 times.
    expect(within).toBeGreaterThanOrEqual(80);
  });

  it('is less sure of an eye that scatters more, and of fewer picks', () => {
    const page = pageOf(7);
    const width = (picks: readonly StudyPick[]): number => {
      const { range } = estimateUvShare(page, fields, picks);
      return range[1] - range[0];
    };
    const steady = picksOf(page, 0.5, 0.2, 7);
    expect(width(picksOf(page, 0.5, 1.5, 7))).toBeGreaterThan(2 * width(steady));
    expect(width(steady.slice(0, 3))).toBeGreaterThan(width(steady));
    expect(estimateUvShare(page, fields, steady.slice(0, 3)).scatter).toBeNull();
  });

  it('takes several eyes, each as sure as its own picks show', () => {
    const page = pageOf(7);
    const by = (eye: number, scatter: number, seed: number): StudyPick[] =>
      picksOf(page, 0.5, scatter, seed).map((pick) => ({ ...pick, eye }));
    const told = (...picks: StudyPick[][]) => {
      const { range, share, scatter } = estimateUvShare(page, fields, picks.flat());
      return { width: range[1] - range[0], off: Math.abs(share - 0.5), scatter };
    };
    const steady = told(by(0, 0.3, 7));
    const wild = told(by(0, 2, 8));
    const both = told(by(0, 0.3, 7), by(1, 2, 8));
    // A wild eye does not spoil what a steady one says, as it would if both were taken for one.
    expect(both.off).toBeLessThan(0.1);
    expect(both.width).toBeLessThan(1.15 * steady.width);
    expect(both.width).toBeLessThan(wild.width);
    expect(told(by(0, 0.3, 7), by(0, 2, 8)).width).toBeGreaterThan(both.width);
    // Two alike are surer than one, and no surer than the page is known.
    const alike = told(by(0, 0.3, 7), by(1, 0.3, 9));
    expect(alike.width).toBeLessThan(steady.width);
    expect(alike.width).toBeGreaterThan(0.4 * steady.width);
    // An eye that picked each row once has no scatter of its own.
    expect(told(by(0, 0.3, 7).slice(0, 3), by(1, 0.3, 9).slice(0, 3)).scatter).toBeNull();
    const many = Array.from({ length: MOST_EYES + 1 }, (_, eye) => by(eye, 0.3, eye));
    expect(told(...many.slice(1)).off).toBeLessThan(0.1);
    expect(() => told(...many)).toThrow('expected up to 4');
  });

  it('tells nothing on a paper without brightener: just under what an eye tells, and just over', () => {
    // Turning grows with the glow; the limit lies where the mean turn in b* is 0.6.
    const turn = (glow: number) => estimateUvShare(pageOf(glow), fields, picksOf(pageOf(glow), 0.5, 0, 1));
    const at = LEAST_TURN / turn(1).turn;
    expect(turn(0.97 * at).tells).toBe(false);
    expect(turn(1.03 * at).tells).toBe(true);
    const none = turn(0);
    expect(none.turn).toBe(0);
    // Every share is as likely as any other.
    expect(none.share).toBeCloseTo(0.6, 2);
    expect(none.range[0]).toBeLessThan(0.08);
    expect(none.range[1]).toBeGreaterThan(1.12);
  });

  it('sees picks that fit no share, and picks at an end', () => {
    const page = pageOf(7);
    const last = Array.from({ length: 12 }, (_, i) => ({ row: i % 3, field: STUDY_FIELDS - 1 }));
    const ends = estimateUvShare(page, fields, last);
    expect(ends.atTheEnd).toEqual([0, 1, 2]);
    const yellow = estimateUvShare(page, fields, picksOf(page, 0, 0, 1, 5));
    expect(yellow.leftOver).toBeGreaterThan(MOST_LEFT_OVER);
    expect(estimateUvShare(page, fields, picksOf(page, 0.5, 0.3, 3)).atTheEnd).toEqual([]);
    expect(() => estimateUvShare(page, fields, [])).toThrow('no picks');
    expect(() => estimateUvShare(page, fields, [{ row: 0, field: 99 }])).toThrow('no field 99');
  });
});
