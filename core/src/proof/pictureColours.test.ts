import { describe, expect, it } from 'vitest';
import { pictureColours } from './pictureColours.ts';

/** Pixels of some colours, each as often as is said. */
const picture = (...colours: readonly (readonly [times: number, ...values: number[]])[]): Uint8Array =>
  Uint8Array.from(
    colours.flatMap(([times, ...values]) => Array.from({ length: times }, () => values).flat()),
  );

describe('the colours of a picture', () => {
  it('stand by their area, alike ones as one', () => {
    const { values, shares } = pictureColours(
      picture([6, 200, 10, 10], [1, 250, 250, 250], [2, 194, 14, 2], [1, 0, 0, 64]),
      3,
      10,
    );
    expect([...shares]).toEqual([0.8, 0.1, 0.1]);
    // The mean of 6 × 200 and 2 × 194.
    expect(255 * values[0]).toBeCloseTo(198.5, 9);
    expect(255 * values[1]).toBeCloseTo(11, 9);
  });

  it('are told apart by a sixteenth of a channel, and by no less', () => {
    const apart = (value: number) => pictureColours(picture([1, 15], [1, value]), 1, 10).shares.length;
    expect(apart(14)).toBe(1);
    expect(apart(16)).toBe(2);
  });

  it('are the most of them, of inks as of light', () => {
    const { values, shares } = pictureColours(picture([3, 255, 0, 0, 0], [1, 0, 0, 0, 255]), 4, 1);
    expect([...values]).toEqual([1, 0, 0, 0]);
    expect([...shares]).toEqual([0.75]);
    expect(pictureColours(new Uint8Array(0), 3, 5).shares).toHaveLength(0);
  });
});
