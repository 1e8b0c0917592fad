import { RGB } from '../src/device/process.ts';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import type { RgbModel } from '@melto/core/characterise/rgbModel';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';

interface WrenModel {
  readonly model: RgbModel;
  readonly device: Float64Array;
  readonly xyz: Float64Array;
}

// Files that share a worker share what takes seconds to fit and build.
const models = new Map<string, WrenModel>();
const profiles = new WeakMap<RgbModel, Map<number, Uint8Array>>();

/** A model and profiles of Wren on one stock from a small noise-free chart, for tests that look at profiles. */
export function wrenModel(
  patches = 300,
  stock: Parameters<typeof wrenTruthXyz>[0] = 'quay-proof-200',
): WrenModel {
  const key = `${patches} ${stock}`;
  const known = models.get(key);
  if (known !== undefined) return known;
  const { device } = makeRgbChart(patches, 4);
  const xyz = wrenTruthXyz(stock, 'fine', device);
  const made = { model: fitRgbModel(device, xyz), device, xyz };
  models.set(key, made);
  return made;
}

export function wrenProfileBytes(version: 2 | 4, { model, device, xyz }: WrenModel): Uint8Array {
  const built = profiles.get(model) ?? new Map<number, Uint8Array>();
  profiles.set(model, built);
  const known = built.get(version);
  if (known !== undefined) return known.slice();
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
  const bytes = writeIcc(profile);
  built.set(version, bytes);
  return bytes.slice();
}
