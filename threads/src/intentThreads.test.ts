import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import type { InkModel } from '@melto/core/characterise/inkModel';
import { genericPressLab } from '@melto/core/charts/genericPress';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { buildInkProfile, buildInkProfileOn } from '@melto/core/profile/buildInkProfile';
import type { InkProfileOptions } from '@melto/core/profile/buildInkProfile';
import { separationOf } from '@melto/core/separate/separation';
import { intentThreads } from './intentThreads.ts';

let folder = '';
let bundle: URL;
let model: InkModel;
let options: InkProfileOptions;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'melto-threads-'));
  const outfile = join(folder, 'inkIntents.mjs');
  await build({
    entryPoints: [join(import.meta.dirname, '../../core/src/profile/inkIntents.ts')],
    ...{ outfile, bundle: true, platform: 'node', format: 'esm', logLevel: 'silent' },
  });
  bundle = pathToFileURL(outfile);
  const { device } = makeCmykChart(200, 3, 3);
  const xyz = new Float64Array((device.length / 4) * 3);
  for (let i = 0; i < device.length / 4; i++)
    xyz.set(labToXyz(genericPressLab(device, 4 * i), WHITE_D50_MEASURED), 3 * i);
  model = fitInkModel(device, 4, xyz);
  options = {
    ...{ version: 4, tableSize: 'small', description: 'x', copyright: '', createdMs: 0 },
    paperXyz: [xyz[0], xyz[1], xyz[2]],
    separation: separationOf('medium', 3),
  };
});
afterAll(() => rmSync(folder, { recursive: true }));

const threads = (cores?: number) => {
  const opened = intentThreads(bundle, cores);
  if (opened === undefined) throw new Error('no threads');
  return opened;
};

describe('intents that are worked out side by side', () => {
  it('make the same profile to the last byte, with colours that matter and pure black', async () => {
    const more = {
      anchors: Float64Array.of(60, 20, 10, 40, -20, 5),
      separation: { ...separationOf('medium', 3), pureBlack: true },
    };
    const { work, end } = threads(2);
    const told: number[] = [];
    try {
      const { profile } = await buildInkProfileOn(work, model, { ...options, ...more }, (f) => told.push(f));
      const alone = buildInkProfile(model, { ...options, ...more }).profile;
      expect(Buffer.compare(Buffer.from(writeIcc(profile)), Buffer.from(writeIcc(alone)))).toBe(0);
    } finally {
      await end();
    }
    expect(told.at(-1)).toBe(1);
    expect(told.every((fraction, i) => i === 0 || fraction >= told[i - 1])).toBe(true);
  });

  it('end with the error of any of them', async () => {
    for (const failing of ['relative', 'saturation'] as const) {
      const { work, end } = threads(2);
      const broken: typeof work = (task) =>
        task.intent === failing ? Promise.reject(new Error(`no ${failing}`)) : work(task);
      await expect(buildInkProfileOn(broken, model, options)).rejects.toThrow(`no ${failing}`);
      await end();
    }
  });

  it('are not there on one core, nor without their bundle', () => {
    expect(intentThreads(bundle, 1)).toBeUndefined();
    expect(intentThreads(pathToFileURL(join(folder, 'none.mjs')), 4)).toBeUndefined();
    expect(intentThreads(bundle, 2)).toBeDefined();
  });
});
