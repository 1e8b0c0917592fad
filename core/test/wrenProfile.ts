import { RGB } from '../src/device/process.ts';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import type { RgbModel } from '@melto/core/characterise/rgbModel';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';

/** A model and profiles of Wren on one stock from a small noise-free chart, for tests that look at profiles. */
export function wrenModel(
  patches = 300,
  stock: Parameters<typeof wrenTruthXyz>[0] = 'quay-proof-200',
): { model: RgbModel; device: Float64Array; xyz: Float64Array } {
  const { device } = makeRgbChart(patches, 4);
  const xyz = wrenTruthXyz(stock, 'fine', device);
  return { model: fitRgbModel(device, xyz), device, xyz };
}

export function wrenProfileBytes(
  version: 2 | 4,
  { model, device, xyz }: ReturnType<typeof wrenModel>,
): Uint8Array {
  const paperXyz = meanPaperXyz(RGB, device, xyz);
  if (paperXyz === undefined) throw new Error('the chart has no paper');
  const { profile } = buildRgbProfile(model, {
    version,
    tableSize: 'normal',
    description: 'test',
    copyright: 'none',
    createdMs: 0,
    characterisation: 'CGATS.17\n',
    paperXyz,
  });
  return writeIcc(profile);
}
