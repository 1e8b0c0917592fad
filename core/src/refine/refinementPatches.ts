import type { Uncertainty } from '../characterise/uncertainty.ts';
import { chooseAddedPatches } from '../charts/addedPatches.ts';
import { addOverprints } from '../charts/cmykChart.ts';
import { ChartDraft } from '../charts/chartDraft.ts';
import type { NamedPatches } from '../charts/namedPatches.ts';
import { createRandom } from '../numerics/random.ts';

/** A colour that matters, at the device value that a profile gives it. */
export interface WantedPatch {
  readonly name: string;
  /** C, M, Y, K, 0..1. */
  readonly device: readonly number[];
}

export interface RefinementChoice {
  /** Colours of a list or a picture; each is read `readings` times. */
  readonly wanted: readonly WantedPatch[];
  readonly readings: number;
  /** Patches where the model is least sure. */
  readonly unsure: number;
  /** Limit of total ink, 1 = 100 %. */
  readonly totalInk: number;
  readonly seed: number;
}

/** Names that no wanted colour has: patches that tie sheets together, and those chosen by the model. */
export const RESERVED_NAMES: ReadonlySet<string> = new Set(['paper', 'overprint', 'least sure', 'picture']);

const PAPERS = 6;
/** What ties a later sheet to an earlier one: papers and overprints are on both. */
export const TIE_PATCHES = PAPERS + 15;

/**
 * The patches of a chart that refines a model: papers and overprints that show how far the two sheets agree, the wanted
 * colours, and the values whose reading tells most once these are read.
 */
export function refinementPatches(
  { wanted, readings, unsure, totalInk, seed }: RefinementChoice,
  uncertainty: Uncertainty,
  onProgress: (fraction: number) => void = () => {},
): NamedPatches {
  const draft = new ChartDraft(PAPERS + 15 + wanted.length * readings + unsure, 4);
  for (let i = 0; i < PAPERS; i++) draft.add([0, 0, 0, 0], 'paper');
  addOverprints(draft, totalInk);
  const first = draft.names.length;
  for (const { name, device } of wanted) draft.add(device, name);
  const own = draft.names.length - first;
  for (let again = 1; again < readings; again++)
    for (let i = 0; i < own; i++) draft.repeat(first + i, draft.names[first + i]);
  if (unsure > 0) {
    const planned = Array.from({ length: own }, (_, i) =>
      draft.device.slice(4 * (first + i), 4 * (first + i) + 4),
    );
    const random = createRandom(seed);
    for (const values of chooseAddedPatches(uncertainty, 4, unsure, totalInk, random, planned, onProgress))
      draft.add(values, 'least sure');
  }
  return draft.finish();
}
