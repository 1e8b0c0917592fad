import { SIMULATED_STOCKS } from '@melto/simulator/data/stocks';
import { deviceTruthSpectra } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';
import { applyToneCurves } from '@melto/core/tone/toneCurve';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { isOwnDevice } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { curvesInForce, curvesOfResult } from '../ledger/inForce.ts';

/**
 * Spectra of a print of a simulated device through the curves in force, in a light where a share of the ultraviolet of M1
 * acts: row-major × 36 bands from 380 nm. Refused for other devices.
 */
export async function printInRoom(
  context: Context,
  condition: ConditionRow,
  values: Float64Array,
  share: number,
): Promise<Float64Array> {
  const stock = Object.values(SIMULATED_STOCKS).find(({ name }) => name === condition.stock)?.id;
  if (isOwnDevice(condition) || stock === undefined)
    throw new Problem(
      'bad-input',
      'The simulated eye looks at prints of simulated devices, in lights of the sample house.',
      'Look with your own.',
    );
  const device = simulatedDevice(condition.deviceDriver);
  const curves = await curvesInForce(context, condition.id);
  const sent =
    curves === undefined ? values : applyToneCurves(await curvesOfResult(context, curves.id), values);
  const [lit, dark] = (['M1', 'M2'] as const).map((mode) =>
    deviceTruthSpectra(device, stock, condition.mode, sent, mode),
  );
  return dark.map((value, i) => value + share * (lit[i] - value));
}
