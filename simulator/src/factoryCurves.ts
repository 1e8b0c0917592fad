import { channelCount } from '@melto/core/device/process';
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
    const inks = channelCount(device.process);
    const values = new Float64Array(inks * STEPS * inks);
    for (let ink = 0; ink < inks; ink++)
      for (let step = 0; step < STEPS; step++) values[(ink * STEPS + step) * inks + ink] = step / (STEPS - 1);
    const xyz = deviceTruthXyz(device, stock, mode, values);
    curves = linearise({
      ramps: inkRamps(device.process, values, xyz),
      paper: xyz.slice(0, 3),
      present: Array.from({ length: inks }, straightCurve),
      limits: new Array<number>(inks).fill(1),
      measure: 'sctv',
    }).map(({ next }) => next);
    cache.set(key, curves);
  }
  return curves;
}
