import type { CgatsTable } from '../cgats/cgatsTable.ts';
import { evaluateToneCurve } from '../tone/toneCurve.ts';
import type { ToneCurves } from '../tone/toneCurve.ts';
import { curveInputs } from './curvesToCsv.ts';

/** Curves as a CGATS table: `INPUT` and a field a channel, per cent. */
export function curvesToCgats(
  curves: ToneCurves,
  channels: readonly string[],
  title: string,
  points = 256,
): CgatsTable {
  const inputs = curveInputs(points);
  return {
    identifier: 'CGATS.17',
    keywords: [
      { name: 'ORIGINATOR', value: 'Melto' },
      { name: 'DESCRIPTOR', value: title },
      { name: 'TABLE_DESCRIPTOR', value: 'tone curves, per cent in and out' },
    ],
    columns: [
      { name: 'SAMPLE_ID', kind: 'text', values: inputs.map((_, i) => String(i + 1)) },
      { name: 'INPUT', kind: 'text', values: inputs.map((input) => (100 * input).toFixed(4)) },
      ...curves.map((curve, i) => ({
        name: `CURVE_${channels[i]}`,
        kind: 'text' as const,
        values: inputs.map((input) => (100 * evaluateToneCurve(curve, input)).toFixed(4)),
      })),
    ],
    rowCount: points,
  };
}
