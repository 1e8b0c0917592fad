import type { Uncertainty } from '../characterise/uncertainty.ts';
import { chooseAddedPatches } from '../charts/addedPatches.ts';
import { addOverprints } from '../charts/cmykChart.ts';
import { bareValues, channelCount, drivenByLight } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { ChartDraft } from '../charts/chartDraft.ts';
import type { NamedPatches } from '../charts/namedPatches.ts';
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

/** Patches that tie a later sheet to an earlier one: papers, overprints or corners of the light are on both. */
export function tiePatches(process: Process): number {
  return PAPERS + 2 ** channelCount(process) - 1;
}

/**
 * The patches of a chart that refines a model: papers and overprints that show how far the two sheets agree, the wanted
 * colours, and the values whose reading tells most once these are read.
 */
export function refinementPatches(
  { wanted, readings, unsure, process, totalInk, seed }: RefinementChoice,
  uncertainty: Uncertainty,
  onProgress: (fraction: number) => void = () => {},
): NamedPatches {
  const channels = channelCount(process);
  const most = drivenByLight(process) ? Infinity : totalInk;
  const draft = new ChartDraft(tiePatches(process) + wanted.length * readings + unsure, channels);
  for (let i = 0; i < PAPERS; i++) draft.add(bareValues(process), 'paper');
  if (drivenByLight(process)) addLightCorners(draft, channels);
  else addOverprints(draft, totalInk);
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
    for (const values of chooseAddedPatches(uncertainty, channels, unsure, most, random, planned, onProgress))
      draft.add(values, 'least sure');
  }
  return draft.finish();
}

/** Corners of the cube of light values, but for the bare stock. */
function addLightCorners(draft: ChartDraft, channels: number): void {
  for (let mask = 0; mask < 2 ** channels - 1; mask++)
    draft.add(
      Array.from({ length: channels }, (_, channel) => (mask >> channel) & 1),
      'primary',
    );
}
