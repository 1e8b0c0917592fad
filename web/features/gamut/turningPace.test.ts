import { describe, expect, it } from 'vitest';
import { TurningPace } from './turningPace';

/** As finely as is drawn after frames of some times. */
function after(...times: readonly number[]): number {
  const pace = new TurningPace();
  pace.move();
  for (const ms of times) pace.frame(ms);
  return pace.move();
}

describe('the pace of turning', () => {
  it('draws a pixel for each until frames are slow, and then fewer, but never less than half', () => {
    expect(after()).toBe(1);
    expect(after(500, 20, 20, 20)).toBe(1);
    expect(after(5, 20.1, 20.1, 20.1)).toBe(0.75);
    expect(after(...Array<number>(8).fill(40))).toBe(0.5);
    expect(after(...Array<number>(40).fill(40))).toBe(0.5);
  });

  it('draws more again where there is time for it, each frame of some', () => {
    const slow = Array<number>(4).fill(40);
    expect(after(...slow, 90, 11, 11, 11)).toBe(1);
    expect(after(...slow, 90, 11, 11, 12)).toBe(0.75);
    expect(after(...slow, ...slow, 5, 5, 5)).toBe(0.5);
  });

  it('judges nothing by frames while nothing moves', () => {
    const pace = new TurningPace();
    for (let i = 0; i < 20; i++) pace.frame(100);
    expect(pace.move()).toBe(1);
    pace.frame(100);
    pace.rest();
    for (let i = 0; i < 3; i++) pace.frame(100);
    expect(pace.move()).toBe(1);
  });
});
