import { describe, expect, it } from 'vitest';
import { unwrap } from '../result.ts';
import { parseShifts, shiftAt, shiftWords, USUAL_SHIFTS } from './shifts.ts';

const STARTS = unwrap(parseShifts(USUAL_SHIFTS));
const at = (text: string): number => Date.parse(text);
const LONDON = 'Europe/London';

describe('shifts', () => {
  it('are read in the order of the day, with or without a leading nought', () => {
    expect(STARTS).toEqual(['06:00', '14:00', '22:00']);
    expect(unwrap(parseShifts(' 6:00; 18:30 '))).toEqual(['06:00', '18:30']);
  });

  it.each(['', '14:00, 06:00', '06:00, 06:00', '24:00', '6', '06:60', '1:00 2:00 3:00 4:00 5:00 6:00 7:00'])(
    'are refused as “%s”',
    (text) => {
      expect(parseShifts(text)).toMatchObject({ ok: false, issues: [{ path: 'shifts' }] });
    },
  );

  it.each([
    ['2026-01-14T13:59:59Z', '2026-01-14, 06:00 to 14:00'],
    ['2026-01-14T14:00:00Z', '2026-01-14, 14:00 to 22:00'],
    ['2026-01-14T23:30:00Z', '2026-01-14, 22:00 to 06:00'],
    ['2026-01-15T05:59:59Z', '2026-01-14, 22:00 to 06:00'],
    // In summer the clock of the house is an hour ahead.
    ['2026-07-14T05:00:00Z', '2026-07-14, 06:00 to 14:00'],
  ])('hold %s', (moment, words) => {
    expect(shiftWords(shiftAt(at(moment), LONDON, STARTS), LONDON)).toBe(words);
  });

  it('last an hour longer in the night when summer ends, and follow each other without a gap', () => {
    const night = shiftAt(at('2026-10-25T02:00:00Z'), LONDON, STARTS);
    expect(night.toMs - night.fromMs).toBe(9 * 3_600_000);
    const next = shiftAt(night.toMs, LONDON, STARTS);
    expect(next.fromMs).toBe(night.toMs);
    expect(next.toMs - next.fromMs).toBe(8 * 3_600_000);
  });

  it('are one round the clock where one is told', () => {
    const whole = shiftAt(at('2026-01-14T03:00:00Z'), 'UTC', ['07:00']);
    expect(shiftWords(whole, 'UTC')).toBe('2026-01-13, 07:00 to 07:00');
  });
});
