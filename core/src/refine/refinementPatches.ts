import type { Uncertainty } from '../characterise/uncertainty.ts';
import { chooseAddedPatches } from '../charts/addedPatches.ts';
import { addOverprints } from '../charts/cmykChart.ts';
import { overprintShare } from '../charts/overprintShare.ts';
import { bareValues, channelCount, drivenByLight } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { ChartDraft } from '../charts/chartDraft.ts';
import type { NamedPatches } from '../charts/namedPatches.ts';
import { inkFamilies } from '../separate/extraInks.ts';
import type { ExtraInks } from '../separate/extraInks.ts';
import { createRandom } from '../numerics/random.ts';

/** A colour that matters, at the device value that a profile gives it. */
export interface WantedPatch {
  readonly name: string;
  /** In the order of the process, 0..1. */
  readonly device: readonly number[];
}

export interface RefinementChoice {
  /** Colours of a list or a picture; each is read `readings` times. */
  readonly wanted: readonly WantedPatch[];
  readonly readings: number;
  /** Patches where the model is least sure. */
  readonly unsure: number;
  readonly process: Process;
  /** Limit of total ink where inks drive the device, 1 = 100 %. */
  readonly totalInk: number;
  readonly seed: number;
  readonly extra?: ExtraInks;
}

/** Names that no wanted colour has: patches that tie sheets together, and those chosen by the model. */
export const RESERVED_NAMES: ReadonlySet<string> = new Set([
  'paper',
  'overprint',
  'primary',
  'least sure',
  'picture',
]);

const PAPERS = 6;

/** Corners of light, or overprints of C, M, Y and K. */
const corners = (channels: number): number => 2 ** Math.min(4, channels) - 1;
/** An extra ink alone, and over each of the two that its hue lies between. */
const EXTRA_TIES = 3;

/** Patches that tie a later sheet to an earlier one: papers, overprints or corners of the light are on both. */
export function tiePatches(process: Process): number {
  const channels = channelCount(process);
  return PAPERS + corners(channels) + EXTRA_TIES * Math.max(0, channels - 4);
}

/**
 * The patches of a chart that refines a model: papers and overprints that show how far the two sheets agree, the wanted
 * colours, and the values whose reading tells most once these are read.
 * @param extra places of the extra inks of more than four: what never prints together is not asked for.
 */
export function refinementPatches(
  { wanted, readings, unsure, process, totalInk, seed, extra }: RefinementChoice,
  uncertainty: Uncertainty,
  onProgress: (fraction: number) => void = () => {},
): NamedPatches {
  const channels = channelCount(process);
  if (channels > 4 && extra === undefined)
    throw new RangeError(`${process.name} without the places of its inks`);
  const most = drivenByLight(process) ? Infinity : totalInk;
  const draft = new ChartDraft(tiePatches(process) + wanted.length * readings + unsure, channels);
  for (let i = 0; i < PAPERS; i++) draft.add(bareValues(process), 'paper');
  if (drivenByLight(process)) addLightCorners(draft, channels);
  else if (extra === undefined) addOverprints(draft, totalInk);
  else addManyOverprints(draft, channels, extra, totalInk);
  const first = draft.names.length;
  for (const { name, device } of wanted) draft.add(device, name);
  const own = draft.names.length - first;
  for (let again = 1; again < readings; again++)
    for (let i = 0; i < own; i++) draft.repeat(first + i, draft.names[first + i]);
  if (unsure > 0) {
    const planned = Array.from({ length: own }, (_, i) =>
      draft.device.slice(channels * (first + i), channels * (first + i + 1)),
    );
    const random = createRandom(seed);
    const families = extra && inkFamilies(extra);
    for (const values of chooseAddedPatches(
      ...([uncertainty, channels, unsure, most, random, planned, onProgress, families] as const),
    ))
      draft.add(values, 'least sure');
  }
  return draft.finish();
}

/** Overprints of C, M, Y and K within the limit, and each extra ink alone and over its neighbours. */
function addManyOverprints(
  draft: ChartDraft,
  channels: number,
  { base, black, inks }: ExtraInks,
  totalInk: number,
): void {
  const four = [...base, black];
  const add = (full: readonly number[]): void => {
    const factor = overprintShare(full.length, full.includes(black) ? 1 : 0, totalInk);
    draft.add(
      Array.from({ length: channels }, (_, ink) => (full.includes(ink) ? (ink === black ? 1 : factor) : 0)),
      'overprint',
    );
  };
  for (let mask = 1; mask < 16; mask++) add(four.filter((_, i) => (mask >> i) & 1));
  for (const { ink, between } of inks)
    for (const other of [undefined, ...between]) add(other === undefined ? [ink] : [ink, other]);
}

/** Corners of the cube of light values, but for the bare stock. */
function addLightCorners(draft: ChartDraft, channels: number): void {
  for (let mask = 0; mask < 2 ** channels - 1; mask++)
    draft.add(
      Array.from({ length: channels }, (_, channel) => (mask >> channel) & 1),
      'primary',
    );
}
