import type { HeadMark, HeadSource } from '@melto/store/results';

/** A chain has seven links; whatever is longer goes round. */
const MOST_DEPTH = 8;

export const markKey = (conditionId: number, link: string): string => `${conditionId} ${link}`;

/**
 * The heads that are stale, of all conditions at once, as `markKey`; what `listStaleHeads` gives with its reasons. A
 * parent that is not in force where its child was made is reason enough, so only heads have to be looked at.
 */
export function staleMarks(heads: readonly HeadMark[], sources: readonly HeadSource[]): Set<string> {
  /** A result is in force where it was made, and at whoever has borrowed it. */
  const byResult = new Map<number, HeadMark[]>();
  const inForce = new Map<string, number>();
  for (const head of heads) {
    const same = byResult.get(head.id);
    if (same === undefined) byResult.set(head.id, [head]);
    else same.push(head);
    inForce.set(markKey(head.headConditionId, head.link), head.id);
  }
  const changed = new Set<number>();
  const parents = new Map<number, Set<number>>();
  for (const source of sources) {
    if (source.changed) changed.add(source.resultId);
    if (source.parentId === null) continue;
    const own = parents.get(source.resultId) ?? new Set();
    parents.set(source.resultId, own.add(source.parentId));
  }
  const known = new Map<HeadMark, boolean>();
  const stale = (head: HeadMark, depth: number): boolean => {
    const before = known.get(head);
    if (before !== undefined) return before;
    const { id, homeId, headConditionId, link } = head;
    const lent = homeId !== headConditionId && inForce.get(markKey(homeId, link)) !== id;
    const value =
      changed.has(id) ||
      lent ||
      (depth < MOST_DEPTH &&
        [...(parents.get(id) ?? [])].some((parent) => {
          const there = byResult.get(parent)?.find((own) => own.headConditionId === homeId);
          return there === undefined || stale(there, depth + 1);
        }));
    known.set(head, value);
    return value;
  };
  return new Set(
    heads.filter((head) => stale(head, 0)).map(({ headConditionId, link }) => markKey(headConditionId, link)),
  );
}
