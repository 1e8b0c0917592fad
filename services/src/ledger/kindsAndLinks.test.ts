import { Type } from '@sinclair/typebox';
import { CMYK, RGB } from '@melto/core/device/process';
import type { HeadRow, ResultRow } from '@melto/store/results';
import { describe, expect, it } from 'vitest';
import { curvesWords } from './inForce.ts';
import { LENDABLE, linksOf, servedLink } from './links.ts';
import { storedOf } from './resultKind.ts';
import type { ResultKind } from './resultKind.ts';

interface Length {
  readonly mm: number;
}

/** Kept in inches as text once, then in inches, now in millimetres. */
const LENGTH: ResultKind<Length, Length> = {
  ...{ shape: 'length', link: 'limits', version: 3, reports: false, picture: () => ({}) },
  summary: Type.Object({ mm: Type.Number() }),
  detail: Type.Object({ mm: Type.Number() }),
  older: [
    ({ summary, detail }) => ({ summary: { inches: Number(summary) }, detail: { inches: Number(detail) } }),
    ({ summary, detail }) => ({
      summary: { mm: 25.4 * (summary as { inches: number }).inches },
      detail: { mm: 25.4 * (detail as { inches: number }).inches },
    }),
  ],
};

const row = (shapeVersion: number, summary: unknown, shape = 'length'): ResultRow => ({
  ...{ id: 7, conditionId: 1, link: 'limits', shape, shapeVersion, version: 1, verdict: null },
  ...{ summary: JSON.stringify(summary), author: 'Ines', madeMs: 0, validDays: null, note: '' },
});

describe('a stored result', () => {
  it.each([
    [1, '2', '3'],
    [2, { inches: 2 }, { inches: 3 }],
    [3, { mm: 50.8 }, { mm: 76.2 }],
  ])('of form %d is led on to the present one, each step once', (version, summary, detail) => {
    const stored = storedOf(LENGTH, row(version, summary), JSON.stringify(detail));
    expect(stored.summary.mm).toBeCloseTo(50.8, 9);
    expect(stored.detail.mm).toBeCloseTo(76.2, 9);
  });

  it('of a newer form, of another kind, with no way on or of another shape is not taken', () => {
    expect(() => storedOf(LENGTH, row(4, { mm: 1 }), undefined)).toThrow('newer Melto');
    expect(() => storedOf(LENGTH, row(3, { mm: 1 }, 'weight'), undefined)).toThrow('expected a length');
    expect(() => storedOf({ ...LENGTH, older: [] }, row(2, { inches: 1 }), undefined)).toThrow('form 2');
    expect(() => storedOf(LENGTH, row(3, { mm: 'far' }), undefined)).toThrow('summary of result 7');
    expect(() => storedOf(LENGTH, row(3, { mm: 1 }), '{}')).toThrow('detail of result 7');
  });
});

describe('links', () => {
  it('of a press are a chain from limits on, of an RGB printer from the profile on', () => {
    expect(linksOf(CMYK)).toEqual(['limits', 'curves', 'balance', 'profile', 'conformity', 'watch']);
    expect(linksOf(RGB)).toEqual(['profile', 'conformity', 'watch']);
    expect(LENDABLE).toEqual(['limits', 'curves', 'balance']);
  });

  it('are served by readings of their charts', () => {
    expect(servedLink('wedge', 'watch')).toBe('watch');
    expect(servedLink('wedge', 'proof')).toBe('conformity');
    expect(servedLink('job', null)).toBe('conformity');
    expect(servedLink('ramps', null)).toBe('curves');
    expect(servedLink('profile', null)).toBe('profile');
  });

  it('say which curves they are, and whether they are borrowed', () => {
    const head = {
      ...row(1, {}),
      link: 'balance',
      version: 4,
      conditionId: 1,
      headConditionId: 1,
    } as HeadRow;
    expect(curvesWords(head, 1)).toBe('Balance v4');
    expect(curvesWords(head, 2)).toBe('Balance v4, borrowed');
  });
});
