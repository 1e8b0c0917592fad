import type { UnitView } from '@melto/services/press/runView';

const zones = (count: number): string => `${count} ${count === 1 ? 'zone' : 'zones'}`;

/** One unit's advice as it is read from two metres. */
export function moveWords({ word, changes, from }: Pick<UnitView, 'word' | 'changes' | 'from'>): string {
  if (word === 'leave') return 'leave it';
  if (word === 'read') return 'no solid read';
  if (word === 'wait') return `wait for ${from.toLocaleString('en-GB')}`;
  const more = changes.filter((change) => change > 0).length;
  const less = changes.filter((change) => change < 0).length;
  if (less === 0) return more === changes.length ? 'more, all over' : `more in ${zones(more)}`;
  if (more === 0) return less === changes.length ? 'less, all over' : `less in ${zones(less)}`;
  return `more in ${more}, less in ${less}`;
}

/** What stands behind the advice, in small. */
export function moveReason(
  { word, worst, tolerance, outside, unreachable, sheets }: UnitView,
  guide: 'colour' | 'density',
): string {
  const figure = guide === 'density' ? `density off by ${worst.toFixed(2)}` : `ΔE ${worst.toFixed(1)}`;
  const limit = guide === 'density' ? tolerance.toFixed(2) : tolerance.toFixed(1);
  if (word === 'read') return 'Nothing of this ink was read yet.';
  if (word === 'wait') return 'Sheets from there on tell what came of the move.';
  const worstZone = `worst ${figure} of ${limit}`;
  if (unreachable.length > 0) return `${worstZone}; no density mends ${zones(unreachable.length)}`;
  if (word === 'leave')
    return worst > tolerance ? `${worstZone}: outside by less than the reading is sure of` : worstZone;
  return `${worstZone}; ${zones(outside.length)} outside, by ${sheets} ${sheets === 1 ? 'sheet' : 'sheets'}`;
}

/** A change of density as it stands over a zone. */
export const changeWords = (change: number): string =>
  change === 0 ? '' : `${change > 0 ? '+' : '−'}${Math.abs(change).toFixed(2)}`;

/** The impression that the next sheet is likely taken at. */
export function nextImpression(last: number | null, settle: number): number {
  return last === null ? 200 : last + Math.max(10, settle + 10);
}
