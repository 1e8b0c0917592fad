import { fitInkModel } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { srgbToLab } from '@melto/core/colour/srgb';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { CMYK } from '@melto/core/device/process';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { pathSmoothness } from '@melto/core/profile/pathSmoothness';
import { unwrap } from '@melto/core/result';
import { limitsWithTurns, turningInks } from '@melto/core/separate/turningInks';
import { separationOf } from '@melto/core/separate/separation';
import { hueTurned } from '../core/test/printedHue.ts';
import { fillOf, printedBy } from '../core/test/screenFill.ts';
import { cmykConditions, noisyXyz } from './cmykConditions.ts';
import { otherDevices } from './otherDevices.ts';
import { printTable } from './table.ts';

const TOTAL_INK = 3;
const SEED = Number(process.env['SEED'] ?? '1');
const ONLY = process.env['ONLY'];

/** How much of a device's gamut the sRGB solid fills in the mapped intents, and what becomes of its blue and its darkest greys. */
export function gamutFill(): void {
  const rows: string[][] = [];
  for (const { name, truth } of [...cmykConditions(), ...otherDevices(SEED)]) {
    if (ONLY !== undefined && !name.includes(ONLY)) continue;
    const { device } = makeCmykChart(800, SEED, TOTAL_INK);
    const xyz = noisyXyz(truth(device), 0.2, createRandom(SEED + 8));
    const paperXyz = meanPaperXyz(CMYK, device, xyz);
    if (paperXyz === undefined) throw new Error('no paper');
    const model = fitInkModel(device, 4, xyz);
    const separation = separationOf('medium', TOTAL_INK);
    const { profile } = buildInkProfile(model, {
      ...{ version: 4, tableSize: 'normal', description: name, copyright: '', createdMs: 0, paperXyz },
      separation: { ...separation, inkLimits: limitsWithTurns(separation.inkLimits, turningInks(model)) },
    });
    const file = unwrap(readIcc(writeIcc(profile)));
    for (const intent of ['perceptual', 'saturation'] as const) {
      const printed = printedBy(file, intent);
      const bends = summariseErrors(pathSmoothness(file, intent).bends);
      rows.push([
        `${name}, ${intent}`,
        (100 * fillOf(file, printed)).toFixed(1),
        hueTurned(file, intent, srgbToLab([0, 0, 1])).toFixed(1),
        (printed([25 / 255, 25 / 255, 25 / 255])[0] - printed([0, 0, 0])[0]).toFixed(1),
        `${bends.median.toFixed(2)} / ${bends.p95.toFixed(2)} / ${bends.largest.toFixed(2)}`,
      ]);
    }
  }
  printTable(
    `sRGB through the mapped intents, 800 patches, seed ${SEED}`,
    ['device, intent', 'fills %', 'blue turns °', 'L* of greys 0–25', 'bends, median / 95 % / largest'],
    rows,
  );
}
