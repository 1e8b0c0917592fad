import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { scaleBlackPoint } from '@melto/core/colour/scaleBlackPoint';
import { WHITE_D50_MEASURED, WHITE_ICC } from '@melto/core/colour/whitePoints';
import { labToXyz, xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import type { RenderingIntent } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { unwrap } from '@melto/core/result';
import { conversion } from '@melto/core/transform/conversion';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';
import { transicc } from './transicc.ts';
import { wrenModel, wrenProfileBytes } from './wrenProfile.ts';

const INTENTS: readonly RenderingIntent[] = ['perceptual', 'relative', 'saturation', 'absolute'];
/** Perceptual black of the version 4 connection space (ICC.1:2022, 6.3.3). */
const REFERENCE_BLACK = [0.00336, 0.0034731, 0.00287] as const;
const COUNT = 10_000;
/** Below this L* Wren's own red channel is at its end and its blacks keep a tint of a* 1. */
const DARKEST_NEUTRAL = 28;

let folder = '';
const profiles = new Map<number, { path: string; profile: IccProfile }>();

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-lcms-'));
  const fitted = wrenModel();
  for (const version of [2, 4] as const) {
    const bytes = wrenProfileBytes(version, fitted);
    const path = join(folder, `v${version}.icc`);
    writeFileSync(path, bytes);
    profiles.set(version, { path, profile: unwrap(readIcc(bytes)) });
  }
});

afterAll(() => rmSync(folder, { recursive: true }));

/** What LittleCMS makes of rows of values. */
function littleCms(
  rows: Float64Array,
  input: string,
  output: string,
  intent: RenderingIntent,
  bpc = false,
): Float64Array {
  return transicc(rows, 3, [
    `-t${INTENTS.indexOf(intent)}`,
    ...(bpc ? ['-b'] : []),
    `-i${input}`,
    `-o${output}`,
  ]).slice(0, rows.length);
}

function randomRgb(seed: number): Float64Array {
  const random = createRandom(seed);
  return Float64Array.from({ length: COUNT * 3 }, () => random.uniform());
}

describe.each([2, 4] as const)('LittleCMS and version %i profiles', (version) => {
  const get = (): { path: string; profile: IccProfile } => {
    const found = profiles.get(version);
    if (found === undefined) throw new Error('no profile was built');
    return found;
  };

  it.each(
    INTENTS.flatMap(
      (intent) =>
        [
          [intent, false],
          [intent, true],
        ] as const,
    ),
  )('agree from device to Lab, %s, black point compensation %s', (intent, bpc) => {
    const { path, profile } = get();
    const rgb = randomRgb(1);
    const own = new Float64Array(rgb.length);
    unwrap(deviceToLab(profile, intent)).apply(rgb, own);
    // LittleCMS compensates perceptual and saturation of version 4 always, absolute never; its Lab has black zero.
    const forced = version === 4 && (intent === 'perceptual' || intent === 'saturation');
    if ((bpc || forced) && intent !== 'absolute') {
      const black = new Float64Array(3);
      unwrap(deviceToLab(profile, intent)).apply([0, 0, 0], black);
      const from = forced ? REFERENCE_BLACK : labToXyz([black[0], 0, 0], WHITE_ICC);
      for (let i = 0; i < own.length; i += 3)
        own.set(scaleBlackPoint([own[i], own[i + 1], own[i + 2]], from, [0, 0, 0]), i);
    }
    const theirs = littleCms(
      rgb.map((v) => v * 255),
      path,
      '*Lab4',
      intent,
      bpc,
    );
    const summary = summariseErrors(deltaE2000Rows(own, theirs));
    expect(summary.mean).toBeLessThan(0.05);
    expect(summary.largest).toBeLessThan(0.3);
  });

  it.each(INTENTS)('agree from Lab to device, %s', (intent) => {
    const { path, profile } = get();
    const random = createRandom(8);
    const lab = Float64Array.from({ length: COUNT * 3 }, (_, i) =>
      i % 3 === 0 ? 100 * random.uniform() : 120 * (random.uniform() - 0.5),
    );
    const own = new Float64Array(lab.length);
    const forced = version === 4 && (intent === 'perceptual' || intent === 'saturation');
    const asked = lab.slice();
    if (forced)
      for (let i = 0; i < lab.length; i += 3)
        asked.set(scaleBlackPoint([lab[i], lab[i + 1], lab[i + 2]], [0, 0, 0], REFERENCE_BLACK), i);
    unwrap(labToDevice(profile, intent)).apply(asked, own);
    const theirs = littleCms(lab, '*Lab4', path, intent).map((v) => v / 255);
    // Differences are judged as colours, through the profile itself.
    const a = new Float64Array(lab.length);
    const b = new Float64Array(lab.length);
    const forward = unwrap(deviceToLab(profile, 'relative'));
    forward.apply(own, a);
    forward.apply(theirs, b);
    const summary = summariseErrors(deltaE2000Rows(a, b));
    expect(summary.mean).toBeLessThan(0.05);
    expect(summary.largest).toBeLessThan(0.3);
  });

  it('give paper and solids as they were read, absolute', () => {
    const { path } = get();
    const corners = Float64Array.of(1, 1, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 1, 1, 0, 1, 1, 1, 0);
    const truth = new Float64Array(corners.length);
    xyzRowsToLab(wrenTruthXyz('quay-proof-200', 'fine', corners), WHITE_D50_MEASURED, truth);
    const through = littleCms(
      corners.map((v) => v * 255),
      path,
      '*Lab4',
      'absolute',
    );
    const errors = deltaE2000Rows(truth, through);
    // The connection space's white is 0.8249 in Z, the measured one 0.82521: 0.024 on paper.
    expect(errors[0]).toBeLessThan(0.03);
    for (const error of errors) expect(error).toBeLessThan(0.6);
  });

  it('holds the whole grey axis neutral and in order, relative', () => {
    const { profile } = get();
    const lab = Float64Array.from({ length: 81 * 3 }, (_, i) =>
      i % 3 === 0 ? DARKEST_NEUTRAL + (i / 3) * 0.9 : 0,
    );
    const device = new Float64Array(lab.length);
    const printed = new Float64Array(lab.length);
    unwrap(labToDevice(profile, 'relative')).apply(lab, device);
    unwrap(deviceToLab(profile, 'relative')).apply(device, printed);
    for (let i = 3; i < printed.length; i += 3) {
      expect(printed[i]).toBeGreaterThan(printed[i - 3]);
      expect(Math.hypot(printed[i + 1], printed[i + 2])).toBeLessThan(0.3);
    }
  });

  it('keeps white white and all device values in range, perceptual', () => {
    const { profile } = get();
    const device = new Float64Array(9);
    unwrap(labToDevice(profile, 'perceptual')).apply([100, 0, 0, 50, 0, 0, 50, -90, -60], device);
    expect(device[0]).toBeCloseTo(1, 2);
    for (const value of device) expect(value).toBeGreaterThanOrEqual(0);
  });

  it.each(['relative', 'absolute'] as const)(
    'sees a screen of version 2 as LittleCMS does, whose white point tag is not that of a paper: %s',
    (intent) => {
      const screen = '/usr/share/color/icc/sRGB.icc';
      const rgb = randomRgb(17);
      const own = new Float64Array(rgb.length);
      const { path, profile } = profiles.get(2) ?? { path: '', profile: undefined };
      if (profile === undefined) throw new Error('no profile');
      unwrap(conversion({ from: unwrap(readIcc(readFileSync(screen))), to: profile, intent })).apply(
        rgb,
        own,
      );
      const theirs = littleCms(
        rgb.map((value) => 255 * value),
        screen,
        path,
        intent,
      );
      const off = own.map((value, i) => Math.abs(255 * value - theirs[i]));
      expect(off.reduce((a, b) => a + b, 0) / off.length).toBeLessThan(0.1);
    },
  );
});
