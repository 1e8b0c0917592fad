import { describe, expect, it } from 'vitest';
import { houseClock, houseDay, houseLongMoment, houseMoment, houseShortDay } from './houseTime.ts';

const at = Date.UTC(2026, 5, 14, 23, 30);

describe('times of a house', () => {
  it('are told in its zone, also where the day is another one there', () => {
    expect(houseDay(at, 'UTC')).toBe('2026-06-14');
    expect(houseDay(at, 'Europe/London')).toBe('2026-06-15');
    expect(houseDay(at, 'America/New_York')).toBe('2026-06-14');
    expect(houseClock(at, 'Europe/London')).toBe('00:30');
    expect(houseClock(at, 'Asia/Kolkata')).toBe('05:00');
  });

  it('follow summer time on both sides of its change', () => {
    const change = Date.UTC(2026, 2, 29, 1);
    expect(houseClock(change - 60_000, 'Europe/London')).toBe('00:59');
    expect(houseClock(change, 'Europe/London')).toBe('02:00');
    expect(houseClock(change, 'UTC')).toBe('01:00');
  });

  it('say the zone on paper and none on a screen', () => {
    expect(houseMoment(at, 'Europe/London')).toBe('2026-06-15 00:30 (Europe/London)');
    expect(houseLongMoment(at, 'Europe/London')).toBe('15 Jun 2026, 00:30');
    expect(houseShortDay(at, 'UTC')).toBe('14 Jun');
  });

  it('refuse a zone that is none', () => {
    expect(() => houseDay(at, 'Saltmarsh/Works')).toThrow(RangeError);
  });
});
