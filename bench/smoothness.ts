import { CMYK } from '@melto/core/device/process';
import { mkdirSync } from 'node:fs';
import sharp from 'sharp';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { labToScreen } from '@melto/core/colour/srgb';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { pathSmoothness } from '@melto/core/profile/pathSmoothness';
import { unwrap } from '@melto/core/result';
import { separationOf } from '@melto/core/separate/separation';
import { cmykConditions, noisyXyz } from './cmykConditions.ts';
import { printTable } from './table.ts';

const TOTAL_INK = 3;
const FOLDER = 'var/hue-leaves';
const LEAF = 160;
const MOST_CHROMA = 110;

/** Bends along 200 paths before and after gamut mapping; twelve hue leaves as a picture below var/. */
export async function smoothness(): Promise<void> {
  mkdirSync(FOLDER, { recursive: true });
  const rows: string[][] = [];
  for (const { name, truth } of cmykConditions()) {
    const { device } = makeCmykChart(800, 1, TOTAL_INK);
    const xyz = noisyXyz(truth(device), 0.2, createRandom(9));
    const paperXyz = meanPaperXyz(CMYK, device, xyz);
    if (paperXyz === undefined) throw new Error('no paper');
    const { profile } = buildInkProfile(fitInkModel(device, 4, xyz), {
      ...{ version: 4, tableSize: 'normal', description: name, copyright: '', createdMs: 0 },
      paperXyz,
      separation: separationOf('medium', TOTAL_INK),
    });
    const file = unwrap(readIcc(writeIcc(profile)));
    for (const intent of ['relative', 'perceptual', 'saturation'] as const) {
      const { bends, ends } = pathSmoothness(file, intent);
      const figures = summariseErrors(bends);
      const worst = bends.indexOf(figures.largest);
      rows.push([
        `${name}, ${intent}`,
        figures.median.toFixed(2),
        figures.p95.toFixed(2),
        figures.largest.toFixed(2),
        ends[worst].map((lab) => lab.map((value) => value.toFixed(0)).join(' ')).join(' → '),
      ]);
      await hueLeaves(file, intent, `${FOLDER}/${name.replaceAll(/[ ,]+/g, '-')}-${intent}.png`);
    }
  }
  printTable(
    `Largest bend of each of 200 straight paths of steps of 2 ΔE*ab, through the file and back; pictures in ${FOLDER}`,
    ['device, intent', 'median', '95 %', 'largest', 'on the path'],
    rows,
  );
}

/** Printed colours over chroma (right) and lightness (up), hues 0° to 330°. */
async function hueLeaves(
  profile: IccProfile,
  intent: 'relative' | 'perceptual' | 'saturation',
  path: string,
) {
  const toDevice = unwrap(labToDevice(profile, intent));
  const toLab = unwrap(deviceToLab(profile, 'relative'));
  const pixels = Buffer.alloc(4 * LEAF * 3 * LEAF * 3);
  for (let leaf = 0; leaf < 12; leaf++) {
    const hue = (leaf * Math.PI) / 6;
    const asked = new Float64Array(LEAF * LEAF * 3);
    for (let y = 0; y < LEAF; y++)
      for (let x = 0; x < LEAF; x++) {
        const chroma = (MOST_CHROMA * x) / (LEAF - 1);
        asked.set(
          [100 - (100 * y) / (LEAF - 1), chroma * Math.cos(hue), chroma * Math.sin(hue)],
          3 * (y * LEAF + x),
        );
      }
    const device = new Float64Array(LEAF * LEAF * 4);
    const printed = new Float64Array(asked.length);
    toDevice.apply(asked, device);
    toLab.apply(device, printed);
    for (let i = 0; i < LEAF * LEAF; i++) {
      const { rgb } = labToScreen([printed[3 * i], printed[3 * i + 1], printed[3 * i + 2]]);
      const row = Math.floor(leaf / 4) * LEAF + Math.floor(i / LEAF);
      const column = (leaf % 4) * LEAF + (i % LEAF);
      for (let c = 0; c < 3; c++) pixels[3 * (row * 4 * LEAF + column) + c] = rgb[c];
    }
  }
  await sharp(pixels, { raw: { width: 4 * LEAF, height: 3 * LEAF, channels: 3 } })
    .png()
    .toFile(path);
}
