import { labToHex } from '@melto/core/colour/srgb';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { findPrint, findSheet } from '@melto/store/prints';
import type { PrintRow, SheetRow } from '@melto/store/prints';
import type { StripRow } from '@melto/store/strips';
import { loadChart } from '../charts/chart.ts';
import type { LoadedChart } from '../charts/chart.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';

/** What a reading desk is about. */
export interface DeskData {
  readonly sheet: SheetRow & { readonly printState: string };
  readonly print: PrintRow;
  readonly chart: LoadedChart;
  readonly condition: ConditionRow;
}

export async function deskData(context: Context, code: string): Promise<DeskData> {
  const sheet = await findSheet(context.database, code);
  if (sheet === undefined) throw notFound(`sheet ${code}`);
  const print = await findPrint(context.database, sheet.printId);
  if (print === undefined) throw notFound(`print of ${code}`);
  const [chart, condition] = await Promise.all([
    loadChart(context, print.chartId),
    conditionOf(context, print.conditionId),
  ]);
  return { sheet, print, chart, condition };
}

/** Refuses a strip that a page does not have. */
export function requireStrip(code: string, strip: number, strips: number): void {
  if (Number.isInteger(strip) && strip >= 1 && strip <= strips) return;
  throw new Problem('bad-input', `${code} has strips 1 to ${strips}.`, 'Choose one of them.', 'strip');
}

/** Refuses a patch that a strip does not have. */
export function requirePatch(strip: number, patch: number, patches: number): void {
  if (Number.isInteger(patch) && patch >= 1 && patch <= patches) return;
  throw new Problem('bad-input', `Strip ${strip} has ${patches} patches.`, 'Choose one of them.', 'patch');
}

/** Screen colours of Lab rows. */
export function hexRow(lab: Float64Array): string[] {
  return Array.from({ length: lab.length / 3 }, (_, i) =>
    labToHex([lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]]),
  );
}

/** Lab (D50/2°) of the patches of a strip. */
export function stripLab(strip: StripRow): Float64Array {
  const xyz =
    strip.kind === 'xyz'
      ? strip.values.slice()
      : new Float64Array((strip.values.length / strip.grid.count) * 3);
  if (strip.kind === 'spectra')
    spectraToXyz(createXyzWeights(strip.grid, tableIlluminant('D50'), '2deg'), strip.values, xyz);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, xyz);
  return xyz;
}
