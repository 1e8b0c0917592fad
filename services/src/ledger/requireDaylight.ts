import type { ResultRow } from '@melto/store/results';
import { Problem } from '../kernel/problem.ts';
import { PROFILE } from './kinds/profileKind.ts';
import { summaryOf } from './resultKind.ts';

/** Refuses a profile for another light where prints are compared and proven: that is done in D50. */
export function requireDaylight(row: Omit<ResultRow, 'author' | 'validDays'>): void {
  if (row.shape !== PROFILE.shape) return;
  const { light } = summaryOf(PROFILE, row);
  if (light !== undefined)
    throw new Problem(
      'bad-input',
      `This profile is for ${light}; prints are compared and proven in D50.`,
      'Take the one that was built for D50.',
    );
}
