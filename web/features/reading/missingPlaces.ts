import type { DeskState } from '@melto/services/reading/desk';

/** A patch of a page: strip and patch, counted from 1. */
export interface PatchPlace {
  readonly strip: number;
  readonly patch: number;
}

/** Patches of a page that were not measured, in the order of the sheet. */
export function missingPlaces({ strips }: Pick<DeskState, 'strips'>): PatchPlace[] {
  return strips.flatMap(({ strip, measured, partly, expected }) =>
    measured !== null
      ? []
      : expected.flatMap((_, i) => ((partly?.[i] ?? null) === null ? [{ strip, patch: i + 1 }] : [])),
  );
}

/** The missing patch that follows `after`, or the first; undefined where no other is missing. */
export function nextMissing(
  state: Pick<DeskState, 'strips'>,
  after: PatchPlace | undefined,
): PatchPlace | undefined {
  const others = missingPlaces(state).filter(
    ({ strip, patch }) => strip !== after?.strip || patch !== after.patch,
  );
  if (after === undefined) return others[0];
  const follows = ({ strip, patch }: PatchPlace): boolean =>
    strip > after.strip || (strip === after.strip && patch > after.patch);
  return others.find(follows) ?? others[0];
}
