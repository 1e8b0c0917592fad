import { fitInkModel } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { labToIpt } from '@melto/core/colour/ipt';
import { scaleBlackPoint } from '@melto/core/colour/scaleBlackPoint';
import { SRGB_TO_XYZ_D50, srgbDecode } from '@melto/core/colour/srgb';
import { WHITE_ICC } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { CMYK } from '@melto/core/device/process';
import { deviceSurface } from '@melto/core/gamut/deviceSurface';
import { bodyFrom, bodyVolume, gamutBody, sharedVolume } from '@melto/core/gamut/gamutBody';
import { cubeSurface } from '@melto/core/gamut/radialBoundary';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { mostInk } from '@melto/core/icc/mostInk';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import { REFERENCE_MEDIUM_BLACK } from '@melto/core/icc/profileBlack';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { applyMatrix3 } from '@melto/core/numerics/matrix3';
import type { Vector3 } from '@melto/core/numerics/matrix3';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { pathSmoothness } from '@melto/core/profile/pathSmoothness';
import { unwrap } from '@melto/core/result';
import { limitsWithTurns, turningInks } from '@melto/core/separate/turningInks';
import { separationOf } from '@melto/core/separate/separation';
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
        hueTurn(printed, [0, 0, 1]).toFixed(1),
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

type Printed = (rgb: Vector3) => Vector3;

/** Media-relative Lab on paper of an sRGB colour. */
function printedBy(file: IccProfile, intent: 'perceptual' | 'saturation'): Printed {
  const toInks = unwrap(labToDevice(file, intent));
  const toLab = unwrap(deviceToLab(file, 'relative'));
  const inks = new Float64Array(4);
  const lab = new Float64Array(3);
  return (rgb) => {
    toInks.apply(Float64Array.from(screenLab(rgb)), inks);
    toLab.apply(inks, lab);
    return [lab[0], lab[1], lab[2]];
  };
}

/** What a colour engine hands to a mapped intent: sRGB with its black scaled to that of the perceptual space. */
function screenLab(rgb: Vector3): Vector3 {
  const xyz = applyMatrix3(SRGB_TO_XYZ_D50, rgb.map(srgbDecode) as unknown as Vector3);
  return scaleBlackPoint(xyzToLab(xyz, WHITE_ICC), [0, 0, 0], REFERENCE_MEDIUM_BLACK);
}

function fillOf(file: IccProfile, printed: Printed): number {
  const toLab = unwrap(deviceToLab(file, 'relative'));
  const most = mostInk(unwrap(labToDevice(file, 'relative')));
  const device = bodyFrom(gamutBody('device', deviceSurface(toLab, most)), 50);
  const filled = bodyFrom(gamutBody('sRGB', cubeSurface(33, printed)), 50);
  return sharedVolume(device, filled) / bodyVolume(device);
}

/** Degrees between asked and printed hue in IPT. */
function hueTurn(printed: Printed, rgb: Vector3): number {
  const [asked, got] = [screenLab(rgb), printed(rgb)].map((lab) => {
    const [, p, t] = labToIpt(lab);
    return (Math.atan2(t, p) * 180) / Math.PI;
  });
  return ((got - asked + 540) % 360) - 180;
}
