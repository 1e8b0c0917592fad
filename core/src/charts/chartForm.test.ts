import { describe, expect, it } from 'vitest';
import {
  coarsestScreen,
  needsOf,
  needsOfShortCheck,
  patchesForScreen,
  roomForAperture,
} from './chartForm.ts';
import { pageCapacity, SHORT_CHECK_NEEDS, STRIP_READER_NEEDS } from './pageGeometry.ts';

describe('forms of charts', () => {
  it('are those of a strip reader and the usual patches where nothing is said', () => {
    expect(needsOf({})).toEqual(STRIP_READER_NEEDS);
    expect(needsOfShortCheck({})).toBe(SHORT_CHECK_NEEDS);
    expect(needsOfShortCheck({ patchSize: 'large' })).toEqual(needsOf({ patchSize: 'large' }));
    expect(needsOfShortCheck({ reader: 'spot' })).toEqual(needsOf({ reader: 'spot' }));
  });

  it('grow in both sides, and leave the page, its gaps and its margins as they are', () => {
    const { patchLength, stripHeight, ...rest } = needsOf({ reader: 'strip', patchSize: 'largest' });
    const { patchLength: usualLength, stripHeight: usualHeight, ...usual } = STRIP_READER_NEEDS;
    expect([patchLength, stripHeight]).toEqual([2 * usualLength, 2 * usualHeight]);
    expect(rest).toEqual(usual);
  });

  it('hold a patch even on the smallest page', () => {
    for (const reader of ['strip', 'spot', 'sheet'] as const) {
      const capacity = pageCapacity('90x90', needsOf({ reader, patchSize: 'largest' }));
      expect(Math.min(capacity.patchesPerStrip, capacity.stripsPerPage)).toBeGreaterThanOrEqual(1);
    }
  });

  it('have room for an aperture with paper of the patch all round, which spans fifteen lines', () => {
    expect(roomForAperture(STRIP_READER_NEEDS)).toBe(4.5);
    expect(coarsestScreen(STRIP_READER_NEEDS)).toBeCloseTo(15 / 0.45, 12);
  });

  it.each([
    [60, 'usual'],
    [33.4, 'usual'],
    [33.3, 'large'],
    [18.2, 'large'],
    [18.1, 'largest'],
    [12.5, 'largest'],
    [12.4, undefined],
  ] as const)('suit a screen of %d lines/cm with %s patches', (lines, size) =>
    expect(patchesForScreen('strip', lines)).toBe(size),
  );
});
