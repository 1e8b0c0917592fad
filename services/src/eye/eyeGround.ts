import type { SpectralChart } from '@melto/core/light/chartInLights';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { REACHED } from '@melto/core/proof/placeList';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { spectralChart } from '../lists/spectralChart.ts';
import { PROFILE } from '../ledger/kinds/profileKind.ts';
import { storedResult } from '../ledger/storedResult.ts';
import { loadReading } from '../reading/loadReading.ts';
import { sheetBrightener, tellsShares, ultravioletPair } from '../profile/ultraviolet.ts';
import { eyePage } from './eyePage.ts';

/** What an eye's check is told from, for computing in the browser. */
export interface EyeCheckGround {
  /** The profile that the page is made with. */
  readonly resultId: number;
  readonly listName: string;
  readonly colours: readonly ListedColour[];
  /** Device values of the page: row-major × channel. */
  readonly device: readonly number[];
  /** Places of colours that the profile does not reach, and by how much. */
  readonly beyond: readonly { readonly colour: number; readonly deltaE: number }[];
  /** The chart of the profile; null where it was not read as spectra. */
  readonly chart: SpectralChart | null;
  /** Its spectra without ultraviolet; null where it was not read so. */
  readonly dark: readonly number[] | null;
}

export async function eyeGround(
  context: Context,
  conditionId: number,
  listId: number | undefined,
): Promise<EyeCheckGround> {
  const page = await eyePage(context, conditionId, listId);
  const { resultId, listName, colours, device, printed } = page;
  return {
    ...{ resultId, listName, colours, device: [...device] },
    beyond: printed.flatMap(({ deltaE }, colour) => (deltaE > REACHED ? [{ colour, deltaE }] : [])),
    ...(await chartOf(context, conditionId, resultId)),
  };
}

/** The chart and what it shows without ultraviolet, as far as it was read so; a profile from elsewhere has none. */
async function chartOf(
  context: Context,
  conditionId: number,
  resultId: number,
): Promise<Pick<EyeCheckGround, 'chart' | 'dark'>> {
  try {
    const chart = await spectralChart(context, conditionId);
    const { detail } = await storedResult(context, resultId, PROFILE);
    return { chart, dark: await darkOf(context, detail.choices.readingId) };
  } catch (error) {
    if (error instanceof Problem && (error.type === 'bad-input' || error.type === 'not-ready'))
      return { chart: null, dark: null };
    throw error;
  }
}

async function darkOf(context: Context, readingId: number): Promise<readonly number[] | null> {
  const pair = await sheetBrightener(context, readingId);
  if (!tellsShares(pair, readingId)) return null;
  const { without } = await ultravioletPair(context, await loadReading(context, readingId), pair.withoutId);
  return Array.from(without, (value) => Number(value.toFixed(5)));
}
