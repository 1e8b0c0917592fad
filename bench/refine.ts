import { CMYK } from '@melto/core/device/process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fitInkModel, inkModelLab } from '@melto/core/characterise/inkModel';
import { inkUncertainty } from '@melto/core/characterise/modelUncertainty';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { relativeToPaper } from '@melto/core/icc/profileTransform';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { mean } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { refinementPatches } from '@melto/core/refine/refinementPatches';
import { separationOf } from '@melto/core/separate/separation';
import { cmykConditions, labOf, noisyXyz, unprinted } from './cmykConditions.ts';
import { transicc } from '../core/test/transicc.ts';
import { printTable } from './table.ts';

const SEEDS = Number(process.env.SEEDS ?? 3);
const TOTAL_INK = 3;
const NOISE = 0.2;
const FIRST = 400;
const BRAND = 30;
const READINGS = 4;
const PROBES = 20_000;

/** A 400-patch profile, refined at 30 brand-like colours that are read four times each. */
export function refine(): void {
  const folder = mkdtempSync(join(tmpdir(), 'melto-refine-'));
  const path = join(folder, 'p.icc');
  const rows: string[][] = [];
  for (const { name, truth } of cmykConditions())
    for (let seed = 1; seed <= SEEDS; seed++) {
      const random = createRandom(31 * seed);
      const read = (device: Float64Array): Float64Array => noisyXyz(truth(device), NOISE, random);
      const first = makeCmykChart(FIRST, seed, TOTAL_INK).device;
      const firstXyz = read(first);
      const targets = labOf(truth(brandLike(random)));
      const probes = unprinted(PROBES, TOTAL_INK, random);
      const expected = labOf(truth(probes));
      const inGamut = expected.slice(0, 12_000);
      const build = (device: Float64Array, xyz: Float64Array, anchored: boolean) => {
        const model = fitInkModel(device, 4, xyz, seed);
        const paperXyz = meanPaperXyz(CMYK, device, xyz);
        if (paperXyz === undefined) throw new Error('no paper');
        const { profile } = buildInkProfile(model, {
          ...{ version: 4, tableSize: 'normal', description: name, copyright: '', createdMs: 0 },
          paperXyz,
          separation: separationOf('medium', TOTAL_INK),
          anchors: anchored ? relativeToPaper(rowsOf(targets), paperXyz) : undefined,
        });
        writeFileSync(path, writeIcc(profile));
        const inks = transicc(targets, 3, ['-t3', '-i*Lab', `-o${path}`]).map((value) => value / 100);
        const inksElsewhere = transicc(inGamut, 3, ['-t3', '-i*Lab', `-o${path}`]).map(
          (value) => value / 100,
        );
        const predicted = new Float64Array(expected.length);
        inkModelLab(model, probes, predicted);
        return {
          model,
          inks,
          loop: mean(deltaE2000Rows(targets, labOf(truth(inks)))),
          elsewhere: mean(deltaE2000Rows(expected, predicted)),
          loopElsewhere: mean(deltaE2000Rows(inGamut, labOf(truth(inksElsewhere)))),
        };
      };
      const before = build(first, firstXyz, false);
      const wanted = Array.from({ length: BRAND }, (_, i) => ({
        name: `brand ${i + 1}`,
        device: [...before.inks.subarray(4 * i, 4 * i + 4)],
      }));
      const figures = [0, 60].map((unsure) => {
        const { device } = refinementPatches(
          { wanted, readings: READINGS, unsure, process: CMYK, totalInk: TOTAL_INK, seed },
          inkUncertainty(before.model),
        );
        return build(
          Float64Array.of(...first, ...device),
          Float64Array.of(...firstXyz, ...read(device)),
          true,
        );
      });
      rows.push([
        `${name}, seed ${seed}`,
        before.loop.toFixed(3),
        ...figures.map(({ loop }) => loop.toFixed(3)),
        before.elsewhere.toFixed(3),
        ...figures.map(({ elsewhere }) => elsewhere.toFixed(3)),
        before.loopElsewhere.toFixed(3),
        ...figures.map(({ loopElsewhere }) => loopElsewhere.toFixed(3)),
      ]);
    }
  rmSync(folder, { recursive: true });
  printTable(
    `Refinement of a ${FIRST}-patch profile: ${BRAND} colours read ${READINGS} times, mean ΔE00 through the file by LittleCMS`,
    [
      'device',
      'before',
      'after',
      'and 60 unsure',
      'model elsewhere',
      'after',
      'and 60',
      'loop elsewhere',
      'after',
      'and 60',
    ],
    rows,
  );
}

function rowsOf(lab: Float64Array): Lab[] {
  return Array.from({ length: lab.length / 3 }, (_, i) => [lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]]);
}

/** Colours as brands choose them: one or two inks near full, little black. */
function brandLike(random: {
  readonly uniform: () => number;
  readonly below: (n: number) => number;
}): Float64Array {
  return Float64Array.from(
    Array.from({ length: BRAND }, () => {
      const inks = [0.1, 0.1, 0.1].map((value) => value * random.uniform());
      inks[random.below(3)] = 0.55 + 0.35 * random.uniform();
      inks[random.below(3)] = 0.3 + 0.6 * random.uniform();
      return [...inks, random.uniform() < 0.3 ? 0.3 * random.uniform() : 0];
    }).flat(),
  );
}
