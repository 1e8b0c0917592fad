import type { BarFigures } from './barFigures.ts';
import type { ColourBar } from './colourBar.ts';
import type { PressUnit } from './pressUnit.ts';
import { patchTolerance } from './runSettings.ts';
import type { Judging } from './runSettings.ts';

/** What a patch is judged by: one figure and its limit. */
export interface PatchMeasure {
  readonly quantity: 'ΔE' | 'ΔTV' | 'ΔCh';
  readonly limit: number;
}

/** The measure of each patch of a bar; none for lines, which are looked at and not judged. */
export function patchMeasures(
  bar: ColourBar,
  units: readonly PressUnit[],
  settings: Judging,
): readonly (PatchMeasure | undefined)[] {
  const { tone, greys } = settings.tolerances;
  return bar.patches.map(({ kind }, patch) => {
    if (kind === 'tint') return { quantity: 'ΔTV', limit: tone };
    if (kind === 'grey') return { quantity: 'ΔCh', limit: greys };
    const limit = patchTolerance(settings, bar, units, patch);
    return limit === undefined ? undefined : { quantity: 'ΔE', limit };
  });
}

/** Where the figure of a measure stands among the three of a patch. */
const COLUMN: Readonly<Record<PatchMeasure['quantity'], number>> = { ΔE: 0, ΔTV: 2, ΔCh: 2 };

/**
 * The figure that a patch is judged by, signed where it has a sign; NaN where it is not known.
 * @param packed as `packFigures` has them.
 */
export function judgedFigure(
  measure: Pick<PatchMeasure, 'quantity'>,
  packed: ArrayLike<number>,
  patch: number,
): number {
  return packed[judgedPlace(measure, patch)];
}

/** Where in the packed figures that one stands. */
export const judgedPlace = ({ quantity }: Pick<PatchMeasure, 'quantity'>, patch: number): number =>
  3 * patch + COLUMN[quantity];

export interface BarVerdict {
  /** Patches that have a figure, and those of them outside. */
  readonly judged: number;
  readonly outside: readonly number[];
}

/** @param packed as `packFigures` has them. */
export function barVerdict(
  measures: readonly (PatchMeasure | undefined)[],
  packed: ArrayLike<number>,
): BarVerdict {
  let judged = 0;
  const outside: number[] = [];
  measures.forEach((measure, patch) => {
    if (measure === undefined) return;
    const value = judgedFigure(measure, packed, patch);
    if (!Number.isFinite(value)) return;
    judged++;
    if (Math.abs(value) > measure.limit) outside.push(patch);
  });
  return { judged, outside };
}

/** ΔE, density over paper and the third figure of each patch in one block, row-major patch × 3. */
export function packFigures({ deltaE, density, other }: BarFigures): Float64Array {
  return Float64Array.from(
    { length: 3 * deltaE.length },
    (_, i) => [deltaE, density, other][i % 3][Math.floor(i / 3)],
  );
}
