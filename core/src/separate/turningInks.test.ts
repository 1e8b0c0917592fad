import { describe, expect, it } from 'vitest';
import { fitInks } from '../characterise/inkModel.ts';
import { makeCmykChart } from '../charts/cmykChart.ts';
import { genericPressLab } from '../charts/genericPress.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { limitsWithTurns, turningInks } from './turningInks.ts';

const { device } = makeCmykChart(400, 3, 3);

/** A press whose ink `turning` gives a share of its effect back past `from`. */
function press(turning: number, from: number, share: number): Float64Array {
  const out = new Float64Array((device.length / 4) * 3);
  for (let i = 0; i < device.length / 4; i++) {
    const inks = [...device.subarray(4 * i, 4 * i + 4)];
    if (turning >= 0 && inks[turning] > from) inks[turning] = from - share * (inks[turning] - from);
    out.set(labToXyz(genericPressLab(Float64Array.from(inks), 0), WHITE_D50_MEASURED), 3 * i);
  }
  return out;
}

describe('inks that turn back', () => {
  it('are none on a press whose inks grow to their solids', () => {
    expect(turningInks(fitInks(device, 4, press(-1, 1, 0)))).toEqual([]);
  });

  it('are named with where they turn, and only they', () => {
    const turning = turningInks(fitInks(device, 4, press(1, 0.8, 0.6)));
    expect(turning.map(({ ink }) => ink)).toEqual([1]);
    expect(turning[0].limit).toBeGreaterThan(0.72);
    expect(turning[0].limit).toBeLessThan(0.88);
    expect(turning[0].fall).toBeGreaterThan(1);
  });

  it('bring limits down, never up', () => {
    const turning = [{ ink: 1, limit: 0.8, fall: 2 }];
    expect(limitsWithTurns([1, 1, 1, 1], turning)).toEqual([1, 0.8, 1, 1]);
    expect(limitsWithTurns([1, 0.7, 0.9, 1], turning)).toEqual([1, 0.7, 0.9, 1]);
    expect(limitsWithTurns([1, 1, 1, 1], [])).toEqual([1, 1, 1, 1]);
  });
});
