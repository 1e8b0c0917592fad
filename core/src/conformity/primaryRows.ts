import type { ColourPair } from './judgeColours.ts';
import type { PatchGroup } from './patchGroups.ts';

/** Rows of bare paper and of the solids C, M, Y, K; −1 where there is none. */
export function primaryRows(
  pairs: readonly ColourPair[],
  groups: readonly ReadonlySet<PatchGroup>[],
): { readonly paper: number; readonly solids: readonly number[] } {
  return {
    paper: groups.findIndex((own) => own.has('substrate')),
    solids: [0, 1, 2, 3].map((ink) =>
      groups.findIndex((own, row) => own.has('solids') && pairs[row].device[ink] > 0.5),
    ),
  };
}
