import { CMYK } from '@melto/core/device/process';
import { inkRamps } from '@melto/core/tone/inkRamps';
import { linearise } from '@melto/core/tone/linearise';
import { straightCurve } from '@melto/core/tone/toneCurve';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import type { SimulatedStockId } from './data/stocks.ts';
import { deviceTruthXyz } from './deviceTruth.ts';
import type { SimulatedDevice } from './simulatedDevice.ts';

const STEPS = 21;
const cache = new Map<string, ToneCurves>();

/** Curves that a front end was delivered with: an even scale by the device's own truth. */
export function factoryCurves(device: SimulatedDevice, stock: SimulatedStockId, mode: string): ToneCurves {
  const key = `${device.id}/${stock}/${mode}`;
  let curves = cache.get(key);
  if (curves === undefined) {
    const values = new Float64Array(4 * STEPS * 4);
    for (let ink = 0; ink < 4; ink++)
      for (let step = 0; step < STEPS; step++) values[(ink * STEPS + step) * 4 + ink] = step / (STEPS - 1);
    const xyz = deviceTruthXyz(device, stock, mode, values);
    curves = linearise({
      ramps: inkRamps(CMYK, values, xyz),
      paper: xyz.slice(0, 3),
      present: [0, 1, 2, 3].map(() => straightCurve()),
      limits: [1, 1, 1, 1],
      measure: 'sctv',
    }).map(({ next }) => next);
    cache.set(key, curves);
  }
  return curves;
}
