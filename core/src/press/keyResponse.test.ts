import { describe, expect, it } from 'vitest';
import { askFor, learnResponse, respond, UNKNOWN_RESPONSE } from './keyResponse.ts';

const zones = (...values: number[]): Float64Array => Float64Array.from(values);

describe('how keys answer', () => {
  it('asks for what brings the wanted change about, at the edges too', () => {
    for (const response of [UNKNOWN_RESPONSE, { gain: 0.5, neighbour: 0.2 }, { gain: 2, neighbour: 0 }]) {
      const wanted = zones(0.1, 0.05, -0.02, 0, 0.03, 0.08);
      const got = respond(response, askFor(response, wanted, 10));
      wanted.forEach((value, zone) => expect(Math.abs(got[zone] - value)).toBeLessThan(0.012));
    }
  });

  it('does not shake a press whose zones cannot be told apart', () => {
    const swing = zones(0.1, -0.1, 0.1, -0.1, 0.1, -0.1);
    for (const change of askFor({ gain: 1, neighbour: 0.25 }, swing, 10))
      expect(Math.abs(change)).toBeLessThan(0.6);
  });

  it('asks for no more than is allowed at once', () => {
    const asked = askFor(UNKNOWN_RESPONSE, zones(1, -1, 0), 0.3);
    expect([...asked].map(Math.abs).every((value) => value <= 0.3)).toBe(true);
    expect([asked[0], asked[1]]).toEqual([0.3, -0.3]);
  });

  it('gives ink away but loses none', () => {
    const total = (values: Float64Array): number => values.reduce((sum, value) => sum + value, 0);
    expect(total(respond({ gain: 1, neighbour: 0.2 }, zones(0.1, 0, 0, 0)))).toBeCloseTo(0.1, 12);
  });

  it('is learnt from what was seen, and stays what is usual where nothing was', () => {
    expect(learnResponse([], 0.01)).toEqual({
      gain: expect.closeTo(1, 9) as number,
      neighbour: expect.closeTo(0.1, 9) as number,
    });
    const truth = { gain: 0.6, neighbour: 0.22 };
    const moves = [zones(0.2, 0, -0.1, 0, 0.15, 0, 0, -0.2), zones(0, 0.1, 0, 0, -0.2, 0.1, 0.05, 0)].map(
      (asked) => ({
        asked,
        seen: respond(truth, asked),
      }),
    );
    const learnt = learnResponse(moves, 0.005);
    expect(Math.abs(learnt.gain - truth.gain)).toBeLessThan(0.06);
    expect(Math.abs(learnt.neighbour - truth.neighbour)).toBeLessThan(0.05);
    // A zone that was not read says nothing.
    const holes = moves.map(({ asked, seen }) => ({
      asked,
      seen: seen.map((value, zone) => (zone === 2 ? NaN : value)),
    }));
    expect(Number.isFinite(learnResponse(holes, 0.005).gain)).toBe(true);
  });

  it('is not believed to be what no press does', () => {
    const asked = zones(0.2, 0.2, 0.2, 0.2);
    expect(learnResponse([{ asked, seen: asked.map(() => 3) }], 0.001).gain).toBe(2.2);
    expect(learnResponse([{ asked, seen: asked.map(() => -1) }], 0.001).gain).toBe(0.35);
  });
});
