import { describe, expect, it } from 'vitest';
import { beforeAll } from 'vitest';
import { formatClock, formatFigure, formatLab, formatSpan, formatWhen, tellHouseZone } from './format';

const AT = Date.UTC(2026, 2, 14, 9, 5); // winter time in London
const SUMMER = Date.UTC(2026, 6, 1, 9, 5);

describe('words for figures and times', () => {
  beforeAll(() => tellHouseZone('Europe/London'));

  it('shows times in the house time zone', () => {
    expect(formatClock(AT)).toBe('09:05');
    expect(formatClock(SUMMER)).toBe('10:05');
  });

  it('shows the clock for today, the day for other days', () => {
    expect(formatWhen(AT, AT + 3_600_000)).toBe('09:05');
    expect(formatWhen(AT, AT + 2 * 86_400_000)).toBe('14 Mar');
    expect(formatWhen(AT, AT + 365 * 86_400_000)).toBe('14 Mar');
  });

  it.each([
    [-5, '0 min'],
    [59 * 60_000, '59 min'],
    [90 * 60_000, '2 h'],
    [47 * 3_600_000, '47 h'],
    [72 * 3_600_000, '3 d'],
  ])('shows a span of %i ms as %s', (ms, words) => expect(formatSpan(ms)).toBe(words));

  it.each([
    [-1.25, 1, '−1.3'],
    [0, 2, '0.00'],
    [3.456, 2, '3.46'],
  ])('shows %d to %i decimals as %s', (value, digits, words) =>
    expect(formatFigure(value, digits)).toBe(words),
  );

  it('shows Lab with two decimals', () => expect(formatLab([50, -0.005, 12.345])).toBe('50.00 -0.01 12.35'));
  it('gives no sign to what rounds to nought', () => {
    expect(formatLab([-0.0049, -0.0051, 0])).toBe('0.00 -0.01 0.00');
    expect(formatLab([-0.049, -0.051, -0], 1)).toBe('0.0 -0.1 0.0');
    expect(formatFigure(-0.04, 1)).toBe('0.0');
    expect(formatFigure(-0.06, 1)).toBe('−0.1');
  });
});
