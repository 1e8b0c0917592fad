import { patchInkDensities } from '@melto/core/cgats/patchInkDensities';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import type { Xyz } from '@melto/core/colour/xyz';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import type { ChartPurpose } from '@melto/store/charts';
import type { Context } from '../kernel/context.ts';
import { curvesOfResult, identityCurves } from '../ledger/inForce.ts';
import { Problem } from '../kernel/problem.ts';
import { completeReading } from '../reading/loadReading.ts';
import type { LoadedReading } from '../reading/loadReading.ts';

/** A complete reading of an ink chart with what calibration needs of it. */
export interface PressReading extends LoadedReading {
  readonly device: Float64Array;
  readonly densities: Float64Array;
  readonly paper: Xyz;
  /** Curves that the sheet was printed through; straight ones where there were none. */
  readonly present: ToneCurves;
}

export async function pressReading(
  context: Context,
  conditionId: number,
  readingId: number,
  purpose: ChartPurpose,
): Promise<PressReading> {
  const loaded = await completeReading(context, conditionId, readingId);
  if (loaded.chart.purpose !== purpose)
    throw new Problem(
      'bad-input',
      `This reading is of another chart: ${loaded.chart.title}.`,
      'Choose another.',
      'readingId',
    );
  const { device } = loaded.set;
  const densities = patchInkDensities(loaded.set);
  const paper = device === undefined ? undefined : meanPaperXyz(loaded.condition.process, device, loaded.xyz);
  if (device === undefined || densities === undefined || paper === undefined)
    throw new Problem(
      'bad-input',
      'The reading has no bare paper.',
      'Print a chart that has it.',
      'readingId',
    );
  const { curvesResultId } = loaded.print;
  const present =
    curvesResultId === null
      ? identityCurves(loaded.condition.process)
      : await curvesOfResult(context, curvesResultId);
  return { ...loaded, device, densities, paper, present };
}
