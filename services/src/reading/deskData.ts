import { labToHex } from '@melto/core/colour/srgb';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { listInstruments } from '@melto/store/devices';
import type { InstrumentRow } from '@melto/store/devices';
import { findPrint, findSheet } from '@melto/store/prints';
import type { PrintRow, SheetRow } from '@melto/store/prints';
import type { StripRow } from '@melto/store/readings';
import { loadChart } from '../charts/chart.ts';
import type { LoadedChart } from '../charts/chart.ts';
import { conditionOf, isOwnDevice } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';

/** What a reading desk is about. */
export interface DeskData {
  readonly sheet: SheetRow & { readonly printState: string };
  readonly print: PrintRow;
  readonly chart: LoadedChart;
  readonly condition: ConditionRow;
  /** Undefined where a sheet can be measured from files only. */
  readonly instrument: InstrumentRow | undefined;
}

export async function deskData(context: Context, code: string): Promise<DeskData> {
  const sheet = await findSheet(context.database, code);
  if (sheet === undefined) throw notFound(`sheet ${code}`);
  const print = await findPrint(context.database, sheet.printId);
  if (print === undefined) throw notFound(`print of ${code}`);
  const [chart, condition, instruments] = await Promise.all([
    loadChart(context, print.chartId),
    conditionOf(context, print.conditionId),
    listInstruments(context.database),
  ]);
  // Charts are laid out for a kind of reader; without one of that kind, the first takes it.
  const instrument =
    instruments.find(({ driver }) => context.instruments.get(driver)?.kind === chart.reader) ??
    instruments[0];
  // Simulated instruments read simulated sheets.
  return { sheet, print, chart, condition, instrument: isOwnDevice(condition) ? undefined : instrument };
}

/** The instrument that a sheet is read with, or a refusal. */
export function requireInstrument({ instrument, condition }: DeskData): InstrumentRow {
  if (instrument !== undefined) return instrument;
  throw new Problem(
    'not-ready',
    isOwnDevice(condition)
      ? 'This sheet was printed elsewhere, and no instrument is connected that reads it.'
      : 'No instrument is connected.',
    'Give its measurements from a file.',
  );
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
