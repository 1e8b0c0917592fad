import { describe, expect, it } from 'vitest';
import type { WatchStateRow } from '@melto/store/watches';
import { watchFigureWords, watchWords } from './watchWords.ts';
import { linkMark } from './marks.ts';
import { standingReasons } from './standing.ts';
import type { StandingFacts } from './standing.ts';

const DAY = 86_400_000;
/** What else is said is not looked at. */
const ANY: readonly string[] = [];
const state = (change: Partial<WatchStateRow> = {}): WatchStateRow => ({
  conditionId: 1,
  watchId: 7,
  dueMs: 10 * DAY,
  expiresMs: 17 * DAY,
  lastMs: 3 * DAY,
  verdict: 'conforms',
  moved: false,
  cause: null,
  spark: [0.2],
  ...change,
});

describe('the mark of a watch', () => {
  it.each([
    ['conforms', state(), false, 5, 'conforms'],
    ['near', state({ verdict: 'near' }), false, 5, 'near'],
    ['moved', state({ moved: true }), false, 5, 'near'],
    ['stale before moved', state({ moved: true }), true, 5, 'stale'],
    ['due before stale', state(), true, 11, 'due'],
    ['failing before due', state({ verdict: 'does-not-conform' }), true, 11, 'does-not-conform'],
    ['not checked yet', undefined, false, 5, 'due'],
    ['of an older watch', state({ watchId: 6 }), false, 5, 'due'],
  ] as const)('%s', (_, row, stale, day, mark) => {
    const link = {
      ...({ link: 'watch', resultId: 7, stored: null, reached: undefined, stale } as const),
      ...{ madeMs: 0, validDays: null },
    } as const;
    expect(linkMark(link, row, day * DAY)).toBe(mark);
  });
});

describe('the mark of a check', () => {
  it.each([
    ['conforms', 30, undefined, false, 'conforms'],
    ['conforms', 30.1, undefined, false, 'due'],
    ['conforms', 30.1, state({ expiresMs: 31 * DAY }), false, 'conforms'],
    ['conforms', 31.1, state({ expiresMs: 31 * DAY }), false, 'due'],
    ['near', 31, undefined, true, 'due'],
    ['does-not-conform', 31, undefined, false, 'does-not-conform'],
    ['not-judged', 1, undefined, false, 'not-judged'],
    ['not-judged', 1, undefined, true, 'stale'],
  ] as const)('%s after %d days, watched or not', (stored, day, watch, stale, mark) => {
    const link = {
      ...({ link: 'conformity', resultId: 9, stored, reached: undefined, stale } as const),
      ...{ madeMs: 0, validDays: null },
    } as const;
    expect(linkMark(link, watch, day * DAY)).toBe(mark);
  });
});

describe('words of a watch', () => {
  it.each([
    [10.5, 'Do the watch check: due today', 'due today'],
    [12.9, 'Do the watch check: overdue 2 d', 'overdue 2 d'],
    [18, 'Do the watch check: the last one has expired', 'overdue 8 d'],
  ])('on day %d', (day, sentence, figures) => {
    expect(watchWords(state(), day * DAY)).toBe(sentence);
    expect(watchFigureWords(state(), day * DAY)).toBe(figures);
  });

  it('before it is due', () => {
    expect(watchFigureWords(state(), 9.8 * DAY)).toBe('next within a day');
    expect(watchFigureWords(state(), 6 * DAY)).toBe('next in 4 d');
  });
});

describe('what a front end does with a job', () => {
  const check = (verdict: string, validDays: number | null = null) => ({ verdict, madeMs: 0, validDays });
  it.each<[string, Partial<StandingFacts>, readonly string[], readonly string[]]>([
    ['goes', {}, [], []],
    ['never checked', { check: undefined }, [], ['There is no conformity check.']],
    ['fails', { check: check('does-not-conform') }, ['The last conformity check does not conform.'], []],
    ['near', { check: check('near') }, [], ['The last conformity check is near a limit.']],
    ['not judged', { check: check('not-judged') }, [], ['The last conformity check was not judged.']],
    ['30 days old', { nowMs: 30 * DAY }, [], []],
    ['older', { nowMs: 30 * DAY + 1 }, [], ['The last conformity check is over 30 days old.']],
    ['a week old, for a week', { check: check('conforms', 7), nowMs: 7 * DAY }, [], []],
    [
      'over a week old, though watched',
      { check: check('conforms', 7), watch: state(), nowMs: 7 * DAY + 1 },
      [],
      ['The last conformity check is over 7 days old.'],
    ],
    ['watched and not due', { watch: state(), nowMs: 10 * DAY }, [], []],
    ['due', { watch: state(), nowMs: 10 * DAY + 1 }, [], ['A watch check is due.']],
    ['at its last hour', { watch: state(), nowMs: 17 * DAY }, [], ['A watch check is due.']],
    ['expired', { watch: state(), nowMs: 17 * DAY + 1 }, ['The last watch check has expired.'], ANY],
    [
      'watch over its limit',
      { watch: state({ verdict: 'does-not-conform' }) },
      ['The last watch check is over its limit.'],
      [],
    ],
    ['moved', { watch: state({ moved: true }) }, [], ['Something has moved.']],
    ['moved, and why', { watch: state({ moved: true, cause: 'Magenta.' }) }, [], ['Magenta.']],
    ['stale', { stale: ['curves', 'profile'] }, [], ['Curves is stale.', 'Profile is stale.']],
  ])('%s', (_, change, stop, mark) => {
    const facts = { check: check('conforms'), watch: undefined, stale: [], nowMs: 0, ...change };
    const found = standingReasons(facts);
    expect(found.stop).toEqual(stop);
    if (mark !== ANY) expect(found.mark).toEqual(mark);
  });
});
