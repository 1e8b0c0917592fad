import { labAt } from '../colour/labAt.ts';
import { CMYK } from '../device/process.ts';
import type { Xyz } from '../colour/xyz.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { fitResponse } from '../tone/fitResponse.ts';
import { meanPaperXyz } from '../device/meanPaperXyz.ts';
import { greyMagentaYellow } from './greyTriplet.ts';

/** A step of a near-neutral scale, mean of its copies (XYZ averaged). */
export interface ScaleStep {
  readonly tone: number;
  readonly xyz: readonly number[];
  readonly lab: readonly [number, number, number];
  readonly rows: readonly number[];
}

/** A grey with a small change of its inks, as sent. */
export interface GreyVariation {
  readonly cmy: readonly [number, number, number];
  readonly lab: readonly [number, number, number];
  readonly row: number;
}

export interface NeutralReading {
  readonly paperXyz: Xyz;
  readonly paperLab: readonly [number, number, number];
  /** From 0 (the paper) to 1. */
  readonly cmy: readonly ScaleStep[];
  readonly k: readonly ScaleStep[];
  readonly variations: readonly GreyVariation[];
  /** Patches that the rest of their scale contradicts; they are in no step. */
  readonly wrong: readonly WrongGrey[];
}

export interface WrongGrey {
  readonly row: number;
  readonly scale: 'cmy' | 'k';
  readonly tone: number;
  /** Departure from what the scale says, in units of Lab. */
  readonly off: number;
}

/** A patch is wrong where L*, a* or b* departs by at least this much from its scale. */
const WRONG_LAB = 1.8;
const SAME = 0.004;

/**
 * Finds the CMY and K scales and the greys with small changes in a CMYK reading; undefined where the paper or a
 * scale of at least eight steps up to 100 % is missing.
 * @param device row-major × 4, as sent to the front end, 0..1; NaN for patches that are none of the scales.
 */
export function neutralReading(device: Float64Array, xyz: Float64Array): NeutralReading | undefined {
  const paperXyz = meanPaperXyz(CMYK, device, xyz);
  if (paperXyz === undefined) return undefined;
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  const cmyRows: [number, number][] = [];
  const kRows: [number, number][] = [];
  const variations: GreyVariation[] = [];
  for (let i = 0; i * 4 < device.length; i++) {
    const [c, m, y, k] = device.subarray(4 * i, 4 * i + 4);
    if (c + m + y + k < 1e-6) {
      cmyRows.push([0, i]);
      kRows.push([0, i]);
    } else if (k === 0) {
      const grey = greyMagentaYellow(c);
      if (Math.abs(m - grey) < SAME && Math.abs(y - grey) < SAME) cmyRows.push([c, i]);
      else if (c > 0 && Math.abs(m - grey) < 0.16 && Math.abs(y - grey) < 0.16)
        variations.push({ cmy: [c, m, y], lab: labAt(lab, i), row: i });
    } else if (c + m + y === 0) kRows.push([k, i]);
  }
  const wrong = [...wrongRows('cmy', cmyRows, lab), ...wrongRows('k', kRows, lab)];
  const left = new Set(wrong.map(({ row }) => row));
  const cmy = stepsOf(cmyRows, xyz, left);
  const k = stepsOf(kRows, xyz, left);
  const whole = (steps: readonly ScaleStep[]): boolean =>
    steps.length >= 8 && Math.abs(steps[steps.length - 1].tone - 1) < 1e-6;
  if (!whole(cmy) || !whole(k)) return undefined;
  return { paperXyz, paperLab: cmy[0].lab, cmy, k, variations, wrong };
}

function wrongRows(
  scale: 'cmy' | 'k',
  rows: readonly (readonly [number, number])[],
  lab: Float64Array,
): WrongGrey[] {
  if (new Set(rows.map(([tone]) => tone)).size < 8) return [];
  const found = new Map<number, WrongGrey>();
  const tone = rows.map(([own]) => own);
  for (let axis = 0; axis < 3; axis++) {
    const value = rows.map(([, row]) => lab[3 * row + axis]);
    const fit = fitResponse({ tone, value }, { rising: false, leastOff: WRONG_LAB });
    const range = Math.max(...value) - Math.min(...value);
    for (const { index, off } of fit.wrong) {
      const known = found.get(rows[index][1]);
      if (known === undefined || Math.abs(known.off) < Math.abs(off * range))
        found.set(rows[index][1], { row: rows[index][1], scale, tone: tone[index], off: off * range });
    }
  }
  return [...found.values()];
}

function stepsOf(
  rows: readonly (readonly [number, number])[],
  xyz: Float64Array,
  left: ReadonlySet<number>,
): ScaleStep[] {
  const byTone = new Map<number, number[]>();
  for (const [tone, row] of rows) {
    if (left.has(row)) continue;
    const key = Math.round(tone * 1e4) / 1e4;
    const list = byTone.get(key);
    if (list === undefined) byTone.set(key, [row]);
    else list.push(row);
  }
  return [...byTone]
    .sort(([a], [b]) => a - b)
    .map(([tone, list]) => {
      const mean = new Float64Array(3);
      for (const row of list)
        for (let axis = 0; axis < 3; axis++) mean[axis] += xyz[3 * row + axis] / list.length;
      const own = new Float64Array(3);
      xyzRowsToLab(mean, WHITE_D50_MEASURED, own);
      return { tone, xyz: [...mean], lab: labAt(own, 0), rows: list };
    });
}
