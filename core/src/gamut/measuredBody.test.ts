import { describe, expect, it } from 'vitest';
import { filterDevice } from '../characterise/testing/filterDevice.ts';
import { createRandom } from '../numerics/random.ts';
import { makeRgbChart } from '../charts/rgbChart.ts';
import type { PatchSet } from '../cgats/patchSet.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { CMYK, RGB } from '../device/process.ts';
import { unwrap } from '../result.ts';
import type { Transform } from '../transform/transform.ts';
import { bodyFrom, bodyVolume, gamutBody, sharedVolume } from './gamutBody.ts';
import { deviceSurface } from './deviceSurface.ts';
import { madeWords } from './madeBody.ts';
import { measuredBody } from './measuredBody.ts';

/** Inks that spread as they print. */
const INKS = (cmyk: ArrayLike<number>): Float64Array =>
  filterDevice(cmyk, (value, ink) => value + (0.5 + 0.1 * ink) * value * (1 - value));
/** Light through the filters of three inks that are as deep as it is missing. */
const lights = (rgb: ArrayLike<number>): Float64Array =>
  INKS(
    Array.from({ length: (rgb.length / 3) * 4 }, (_, i) =>
      i % 4 === 3 ? 0 : 1 - (rgb[3 * (i >> 2) + (i % 4)] ?? 0),
    ),
  );

/** Paper, overprints and evenly drawn values, whose sum is at most so much. */
function inkRows(count: number, totalInk: number): Float64Array {
  const random = createRandom(5);
  const within = (inks: readonly number[]): number[] => {
    const over = inks.reduce((a, b) => a + b, 0) / totalInk;
    return over > 1 ? inks.map((value) => value / over) : [...inks];
  };
  const rows = Array.from({ length: 16 }, (_, bits) => within([0, 1, 2, 3].map((ink) => (bits >> ink) & 1)));
  while (rows.length < count)
    rows.push(within([0, 1, 2, 3].map(() => Math.min(1, Math.max(0, 1.2 * random.uniform() - 0.1)))));
  return Float64Array.from(rows.flat());
}

const patchSet = (process: typeof CMYK, device: Float64Array, xyz: Float64Array | undefined): PatchSet => ({
  ids: [],
  process,
  device,
  xyz,
  conditions: {},
  notes: [],
});

/** What is printed in truth, by the device itself. */
const truth = (inputs: number, print: (device: ArrayLike<number>) => Float64Array, totalInk?: number) => {
  const toLab: Transform = {
    inputs,
    outputs: 3,
    apply: (values, out) => xyzRowsToLab(print(values), WHITE_D50_MEASURED, out),
  };
  return gamutBody('truth', deviceSurface(toLab, totalInk));
};

const GREY = 50;
const volumeOf = (body: ReturnType<typeof gamutBody>): number => bodyVolume(bodyFrom(body, GREY));

describe('the body of a reading', () => {
  it('of inks is that of the device, inks as far as the chart goes', () => {
    const device = inkRows(260, 2.8);
    const made = unwrap(measuredBody(patchSet(CMYK, device, INKS(device)), 'reading'));
    expect(made.totalInk).toBeCloseTo(2.8, 9);
    expect(made.patches).toBeGreaterThan(250);
    expect(made.cornersOnly).toBeUndefined();
    const real = truth(4, INKS, made.totalInk);
    const [own, whole] = [volumeOf(made.body), volumeOf(real)];
    expect(Math.abs(own / whole - 1)).toBeLessThan(0.01);
    expect(sharedVolume(bodyFrom(made.body, GREY), bodyFrom(real, GREY)) / whole).toBeGreaterThan(0.985);
    expect(madeWords(made)).toBe(`from ${made.patches} patches, with its paper, ink to 280 %`);
  });

  it('of light is that of the device', () => {
    const { device } = makeRgbChart(120, 3);
    const made = unwrap(measuredBody(patchSet(RGB, device, lights(device)), 'reading'));
    expect(made.totalInk).toBeUndefined();
    expect(Math.abs(volumeOf(made.body) / volumeOf(truth(3, lights)) - 1)).toBeLessThan(0.015);
  });

  it('of too few patches for a model has straight lines between its solids, and of none is refused', () => {
    const rows = Float64Array.from(
      Array.from({ length: 16 }, (_, bits) => [0, 1, 2, 3].map((ink) => (bits >> ink) & 1)).flat(),
    );
    const made = unwrap(measuredBody(patchSet(CMYK, rows, INKS(rows)), 'solids'));
    expect(made).toMatchObject({ cornersOnly: true, patches: 16 });
    expect(madeWords(made)).toBe('from 16 patches, straight lines between its solids, with its paper');
    const corners = new Set(made.body.triangles.flat().map((lab) => lab.map((v) => v.toFixed(6)).join()));
    expect(corners.size).toBe(8);
    // The darkest of the blacks is the lower end.
    const lab = new Float64Array(48);
    xyzRowsToLab(INKS(rows), WHITE_D50_MEASURED, lab);
    const darkest = Math.min(...Array.from({ length: 16 }, (_, i) => lab[3 * i] ?? 100));
    expect(made.body.darkest).toBeCloseTo(darkest, 6);

    const refused = (keep: (bits: number) => boolean): string => {
      const kept = Array.from({ length: 16 }, (_, bits) => bits).filter(keep);
      const own = Float64Array.from(kept.flatMap((bits) => [0, 1, 2, 3].map((ink) => (bits >> ink) & 1)));
      const result = measuredBody(patchSet(CMYK, own, INKS(own)), 'solids');
      return result.ok ? 'made' : (result.issues[0]?.found ?? '');
    };
    expect(refused(() => true)).toBe('made');
    expect(refused((bits) => bits !== 3 && bits !== 4)).toBe('no C+M, Y');
    expect(refused((bits) => bits > 0 && bits < 7)).toBe('no paper, black');
  });

  it('is refused where what is asked for is not told', () => {
    const device = inkRows(160, 2.8);
    const xyz = INKS(device);
    const found = (set: PatchSet): string => {
      const result = measuredBody(set, 'x');
      return result.ok ? 'made' : (result.issues[0]?.found ?? '');
    };
    expect(found(patchSet(CMYK, device, undefined))).toBe('no colours');
    expect(found({ ...patchSet(CMYK, device, xyz), device: undefined })).toMatch(/^colours alone/);
    const grey = { ...CMYK, name: 'K' };
    expect(found(patchSet({ ...grey, channels: grey.channels.slice(3) }, device, xyz))).toBe('K');
    expect(
      found(
        patchSet(
          CMYK,
          device,
          xyz.map(() => 1e308),
        ),
      ),
    ).not.toBe('made');
    // A chart that never leaves an ink out has no paper, and no edge of the device.
    const never = device.map((value, i) => (i % 4 === 1 ? 0.03 + 0.97 * value : value));
    expect(found(patchSet(CMYK, never, INKS(never)))).toBe('3 to 100 %');
    const hardly = device.map((value, i) => (i % 4 === 1 ? 0.01 + 0.99 * value : value));
    expect(found(patchSet(CMYK, hardly, INKS(hardly)))).toBe('made');
  });
});
