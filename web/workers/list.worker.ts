import { expose } from 'comlink';
import { readIcc } from '@melto/core/icc/readIcc';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import type { SeenIn } from '@melto/core/light/colourUnder';
import { recipesOf } from '@melto/core/lists/recipes';
import { recipesUnder } from '@melto/core/lists/recipesUnder';
import { chartInLights } from '@melto/core/light/chartInLights';
import type { ChartInLights, SpectralChart } from '@melto/core/light/chartInLights';
import { tintsOf } from '@melto/core/lists/tints';
import { nearestColours, placeList } from '@melto/core/proof/placeList';
import { placePictures } from '@melto/core/proof/placePictures';
import type { PlacedPictures, SampledPicture } from '@melto/core/proof/placePictures';
import type { PlacedList, PrintedColour } from '@melto/core/proof/placeList';
import type { ListedColour } from '@melto/core/refine/namedColour';
import type { ToldPicture } from '@/features/proof/openPicture';
import { issueText } from '@melto/core/result';
import type { Result } from '@melto/core/result';

/** One colour in depth: its tints, and other recipes that come as near. */
export interface ColourInDepth {
  readonly tints: readonly PrintedColour[];
  /** By rising black; none where the device takes light. */
  readonly recipes: readonly PrintedColour[];
}

/** What a result holds, or a sentence with the name of its profile. */
function answered<T>(name: string, bytes: Uint8Array, work: (profile: IccProfile) => Result<T>): T | string {
  const profile = readIcc(bytes);
  const made = profile.ok ? work(profile.value) : profile;
  return made.ok ? made.value : `${name}: ${made.issues.map(issueText).join('; ')}`;
}

/** The chart that was asked for last, with what was fitted to it. */
let last: { readonly key: string; readonly chart: ChartInLights } | undefined;

/** Pixels of a picture that are looked at. */
const SAMPLES = 4000;

let page: readonly SampledPicture[] = [];

/** Every so many pixels of a picture, so that they lie all over it. */
function sampled({ values, channels }: ToldPicture): Float64Array {
  const pixels = Math.floor(values.length / channels);
  const count = Math.min(SAMPLES, pixels);
  const out = new Float64Array(count * channels);
  for (let i = 0; i < count; i++) {
    const pixel = Math.floor(((i + 0.5) * pixels) / count);
    for (let c = 0; c < channels; c++) out[i * channels + c] = values[pixel * channels + c] / 255;
  }
  return out;
}

const api = {
  /** A colour list on a device, through its profile; a sentence where the profile cannot be used. */
  place: (name: string, bytes: Uint8Array, lab: Float64Array): PlacedList | string =>
    answered(name, bytes, (profile) => placeList(profile, lab)),

  /** What comes nearest to each colour of a list, whatever the profile makes of it. */
  nearest: (name: string, bytes: Uint8Array, lab: Float64Array): PrintedColour[] | string =>
    answered(name, bytes, (profile) => nearestColours(profile, lab)),

  /** Takes the pictures that `placePage` lays on devices; a sentence where the profile of one cannot be read. */
  openPage: (pictures: readonly ToldPicture[]): string | undefined => {
    const taken: SampledPicture[] = [];
    for (const picture of pictures) {
      const profile = readIcc(picture.icc);
      if (!profile.ok) return `${picture.name}: ${profile.issues.map(issueText).join('; ')}`;
      taken.push({ name: picture.name, profile: profile.value, values: sampled(picture) });
    }
    page = taken;
    return undefined;
  },

  /** The pictures on a device, through its profile. */
  placePage: (name: string, bytes: Uint8Array): PlacedPictures | string =>
    answered(name, bytes, (profile) => placePictures(profile, page)),

  inDepth: (name: string, bytes: Uint8Array, colour: ListedColour): ColourInDepth | string =>
    answered(name, bytes, (profile) => {
      const tints = tintsOf(profile, [colour]);
      if (!tints.ok) return tints;
      const recipes = recipesOf(profile, colour.lab);
      return { ok: true, value: { tints: tints.value[0], recipes: recipes.ok ? recipes.value : [] } };
    }),

  /**
   * ΔE00 of each recipe in each light, from the colour's spectrum or from how it prints in D50.
   * @param key of the chart: models of the one that was asked for last are kept.
   */
  underLights: (
    key: string,
    chart: SpectralChart,
    recipes: readonly PrintedColour[],
    lights: readonly SeenIn[],
    spectrum: ListedColour['spectrum'],
  ): Float64Array[] => {
    if (last?.key !== key) last = { key, chart: chartInLights(chart) };
    return recipesUnder(
      last.chart,
      {
        recipes: Float64Array.from(recipes.flatMap(({ device }) => [...device])),
        printed: Float64Array.from(recipes.flatMap(({ printed }) => [...printed])),
      },
      lights,
      spectrum,
    );
  },
};

export type ListWorker = typeof api;

expose(api);
