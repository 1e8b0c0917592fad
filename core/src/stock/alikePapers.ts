import { patchXyz } from '../cgats/patchColours.ts';
import type { PatchSet } from '../cgats/patchSet.ts';
import { mergeRepeats } from '../characterise/mergeRepeats.ts';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { channelCount, isBare, sameProcess } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { mean } from '../numerics/statistics.ts';

/** How two papers compare, by sheets that were printed on both in the same way. */
export interface PapersCompared {
  readonly alike: boolean;
  /** ΔE00 of the bare papers, and what it may be by the noise of its patches. */
  readonly white: number;
  readonly whiteLimit: number;
  /** Difference of the darkest colour's L*. */
  readonly darkest: number;
  /** Mean ΔE00 of the device values that both sheets have, and what it may be from sheet to sheet. */
  readonly inks: number;
  readonly inksLimit: number;
  /** Device values that both have. */
  readonly common: number;
}

/** With fewer device values in common two papers are not compared. */
export const LEAST_COMMON = 12;
/** Two measurements of one white may differ by as much, whatever the repeats say: position, instrument, day. */
const LEAST_WHITE = 0.25;
/** Two sheets of one paper may differ by as much on the mean: the device drifts from sheet to sheet. */
const LEAST_INKS = 1.1;
/** As many standard deviations of a mean are noise. */
const NOISE = 3;
/** The darkest colour follows the ink of the day more than the paper. */
const MOST_DARKEST = 3;

/**
 * Whether two papers behave alike: white, darkest colour and inks differ by no more than measuring twice and printing
 * twice do. Papers under two names are found by it; that two papers are one is for a person to say.
 * @param a and `b`: complete readings in one mode of sheets of one device, ink set and mode, that no profile or curves changed.
 * @returns undefined where they have too little in common, no bare paper, or other modes.
 */
export function comparePapers(a: PatchSet, b: PatchSet): PapersCompared | undefined {
  const [one, other] = [coloursOf(a), coloursOf(b)];
  if (one === undefined || other === undefined || !sameProcess(a.process, one.process)) return undefined;
  if (!sameProcess(b.process, one.process) || a.conditions.mode !== b.conditions.mode) return undefined;
  if (one.white === undefined || other.white === undefined) return undefined;
  const pairs = [...one.colours].flatMap(([key, lab]) => {
    const twin = other.colours.get(key);
    return twin === undefined ? [] : [[lab, twin] as const];
  });
  if (pairs.length < LEAST_COMMON) return undefined;
  const white = deltaE2000(one.white, other.white);
  const noise = Math.hypot(one.whiteNoise, other.whiteNoise);
  const whiteLimit = Math.max(LEAST_WHITE, NOISE * noise);
  const inks = mean(pairs.map(([first, second]) => deltaE2000(first, second)));
  const inksLimit = Math.max(LEAST_INKS, NOISE * Math.hypot(one.noise, other.noise));
  const darkest = Math.min(...pairs.map(([lab]) => lab[0])) - Math.min(...pairs.map(([, lab]) => lab[0]));
  return {
    alike: white <= whiteLimit && inks <= inksLimit && Math.abs(darkest) <= MOST_DARKEST,
    ...{ white, whiteLimit, darkest, inks, inksLimit, common: pairs.length },
  };
}

interface SheetColours {
  readonly process: Process;
  /** Mean Lab by device values. */
  readonly colours: ReadonlyMap<string, Lab>;
  readonly white: Lab | undefined;
  /** Standard deviation of the mean of the bare paper, ΔE00. */
  readonly whiteNoise: number;
  /** Mean distance of a repeat from its mean, ΔE00. */
  readonly noise: number;
}

function coloursOf(set: PatchSet): SheetColours | undefined {
  const xyz = patchXyz(set);
  const { process, device } = set;
  if (process === undefined || device === undefined || xyz === undefined) return undefined;
  const channels = channelCount(process);
  const merged = mergeRepeats(device, channels, xyz);
  const labOf = (values: Float64Array, row: number): Lab =>
    xyzToLab([values[3 * row], values[3 * row + 1], values[3 * row + 2]], WHITE_D50_MEASURED);
  const colours = new Map<string, Lab>();
  const apart: number[] = [];
  let white: Lab | undefined;
  let whiteNoise = 0;
  merged.sources.forEach((rows, i) => {
    const own = labOf(merged.xyz, i);
    const values = merged.device.subarray(i * channels, (i + 1) * channels);
    colours.set(Array.from(values, (value) => Math.round(255 * value)).join(), own);
    const differences = rows.map((row) => deltaE2000(labOf(xyz, row), own));
    if (rows.length > 1) apart.push(...differences);
    if (!isBare(process, merged.device, i)) return;
    white = own;
    whiteNoise = rows.length > 1 ? mean(differences) / Math.sqrt(rows.length - 1) : 0;
  });
  return { process, colours, white, whiteNoise, noise: apart.length === 0 ? 0 : mean(apart) };
}
