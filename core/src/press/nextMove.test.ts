import { describe, expect, it } from 'vitest';
import { nextMove, USUAL_MOVES } from './nextMove.ts';
import type { UnitSheet, ZoneAim } from './nextMove.ts';
import { settledNoise } from './settledNoise.ts';

const AIMS: ZoneAim[] = Array.from({ length: 6 }, () => ({ best: 1.4, within: [1.33, 1.47] as const }));
const sheet = (impression: number, ...density: number[]): UnitSheet => ({ impression, density });
const even = (impression: number, density: number): UnitSheet =>
  sheet(impression, ...new Array<number>(6).fill(density));

describe('the next move of a unit', () => {
  it('asks for a sheet where none was read', () => {
    expect(nextMove([], [], AIMS)).toMatchObject({ word: 'read', sheets: 0 });
    expect(nextMove([even(10, NaN)], [], AIMS)).toMatchObject({ word: 'read' });
  });

  it('leaves alone what is within, and what is outside by no more than the reading may be off', () => {
    const half = 0.5 * USUAL_MOVES.noise;
    expect(nextMove([even(10, 1.34)], [], AIMS).word).toBe('leave');
    expect(nextMove([even(10, 1.33 - half + 0.001)], [], AIMS).word).toBe('leave');
    expect(nextMove([even(10, 1.33 - half - 0.001)], [], AIMS).word).toBe('move');
    // Four sheets are twice as sure.
    const four = [10, 20, 30, 40].map((impression) => even(impression, 1.33 - half / 2 - 0.001));
    expect(nextMove(four, [], AIMS)).toMatchObject({ word: 'move', sheets: 4 });
    expect(nextMove(four.slice(0, 1), [], AIMS).word).toBe('leave');
  });

  it('moves what is outside towards its best, and the zones beside it where that is sure', () => {
    const { word, changes, outside, expected } = nextMove(
      [sheet(10, 1.2, 1.4, 1.4, 1.44, 1.4, 1.55)],
      [],
      AIMS,
    );
    expect(word).toBe('move');
    expect(outside).toEqual([0, 5]);
    expect(changes[0]).toBeGreaterThan(0.15);
    expect(changes[5]).toBeLessThan(-0.1);
    expect(changes[3]).toBeLessThan(0);
    // What its neighbours will bring is made up for only where the zone itself is off to that side.
    expect([changes[1], changes[2]]).toEqual([0, 0]);
    expect(Math.abs(expected[0] - 1.4)).toBeLessThan(0.03);
  });

  it('waits for a move to arrive, to the impression', () => {
    const before = even(100, 1.2);
    const move = { impression: 100, changes: new Array<number>(6).fill(0.2) };
    const at = (impression: number) => nextMove([before, even(impression, 1.3)], [move], AIMS);
    expect(at(249)).toMatchObject({ word: 'wait', from: 250 });
    expect(at(250)).toMatchObject({ word: 'move', sheets: 1 });
  });

  it('learns that keys do half of what is asked', () => {
    const move = { impression: 100, changes: new Array<number>(6).fill(0.2) };
    const { response, changes } = nextMove([even(100, 1.2), even(300, 1.3)], [move], AIMS);
    expect(response.gain).toBeLessThan(0.7);
    expect(changes[2]).toBeGreaterThan(0.13);
  });

  it('says where no density helps, and moves there only from far', () => {
    const hopeless = AIMS.map(({ best }) => ({ best, within: undefined }));
    expect(nextMove([even(10, 1.41)], [], hopeless)).toMatchObject({
      word: 'leave',
      unreachable: [0, 1, 2, 3, 4, 5],
    });
    expect(nextMove([even(10, 1.5)], [], hopeless).word).toBe('move');
  });

  it('asks nothing of a zone without an aim, or that was not read', () => {
    const aims = AIMS.map((aim, zone) =>
      zone === 2 ? { best: NaN, within: [-Infinity, Infinity] as const } : aim,
    );
    const { changes } = nextMove([sheet(10, 1.2, NaN, 1.2, 1.2, 1.2, 1.2)], [], aims);
    expect([changes[1], changes[2]]).toEqual([0, 0]);
    expect([...changes].every(Number.isFinite)).toBe(true);
  });
});

describe('noise of a settled press', () => {
  const usual = { usual: 0.012, least: 0.006 };
  const wobble = Array.from({ length: 6 }, (_, i) => even(100 * i, 1.4 + (i % 2 === 0 ? 0.02 : -0.02)));
  it('is told by sheets without a move between them, from enough of them on', () => {
    expect(settledNoise(wobble, [], 50, usual)).toBeCloseTo(0.04 / Math.SQRT2, 9);
    expect(settledNoise(wobble.slice(0, 4), [], 50, usual)).toBe(0.012);
    expect(
      settledNoise(
        wobble.map(({ impression }) => even(impression, 1.4)),
        [],
        50,
        usual,
      ),
    ).toBe(0.006);
  });

  it('leaves out what a move disturbed, until it has arrived', () => {
    const step = [
      ...[0, 100, 200, 300, 400].map((at) => even(at, 1.3)),
      ...[500, 600, 700, 800, 900].map((at) => even(at, 1.5)),
    ];
    const move = { impression: 400, changes: [] };
    expect(settledNoise(step, [move], 100, usual)).toBe(0.006);
    expect(settledNoise(step, [], 100, usual)).toBeGreaterThan(0.04);
  });
});
