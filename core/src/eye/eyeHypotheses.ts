import { chartModel } from '../characterise/chartModel.ts';
import { labAt } from '../colour/labAt.ts';
import { labToScreen, srgbToLab } from '../colour/srgb.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import { coloursUnder } from '../light/colourUnder.ts';
import type { SeenIn } from '../light/colourUnder.ts';
import type { SpectralChart } from '../lists/recipesUnder.ts';
import type { ListedColour } from '../refine/namedColour.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
import { tableIlluminant } from '../spectral/illuminant.ts';
import { transformed } from '../transform/transform.ts';
import { eyeWeights, seenShift } from './eyeWords.ts';
import type { EyeHypothesis } from './pointOut.ts';

/** What tells how causes would show on the page of an eye's check. */
export interface EyeGround {
  readonly colours: readonly ListedColour[];
  /** Device values of the page, row-major × channel, 0..1. */
  readonly device: ArrayLike<number>;
  /** What the page was made with. */
  readonly profile: IccProfile;
  /** The chart that the profile was built from; undefined where it was not read as spectra. */
  readonly chart?: SpectralChart;
  /** Its spectra without ultraviolet; undefined where it was not read so. */
  readonly dark?: ArrayLike<number>;
  /** The light that was looked in. */
  readonly seen: SeenIn;
}

/** Shares of the inks that come to the paper when limits or speed are not what they were. */
const INKS = [0.7, 0.8, 0.88, 1.12, 1.22] as const;
/** Shares of the ultraviolet of M1 that may act in a light. */
const ULTRAVIOLET = [0, 0.25, 0.5] as const;

const DAYLIGHT: SeenIn = { light: tableIlluminant('D50'), observer: '2deg' };

/** How each cause would move each colour of the page from its reference. */
export function eyeHypotheses(ground: EyeGround): Result<EyeHypothesis[]> {
  const { colours, profile, seen } = ground;
  const to = labToDevice(profile, 'absolute');
  if (!to.ok) return to;
  const back = deviceToLab(profile, 'absolute');
  if (!back.ok) return back;
  const channels = back.value.inputs;
  const device = Float64Array.from(ground.device);
  const asked = Float64Array.from(colours.flatMap(({ lab }) => [...lab]));
  const printed = transformed(back.value, device);
  const from = (lab: ArrayLike<number>): Float64Array[] => shiftsOf(asked, lab);
  const made: EyeHypothesis[] = [
    {
      cause: 'reach',
      words: 'printed as it should be, as near as ink and paper come',
      shifts: from(printed),
    },
    ...INKS.map((share) => ({
      cause: 'ink' as const,
      words: `about ${Math.round(100 * Math.abs(share - 1))} % ${share < 1 ? 'less' : 'more'} ink than when the profile was made`,
      shifts: from(transformed(back.value, inked(device, channels, share))),
    })),
    {
      cause: 'profile',
      words: 'printed past the profile, as values of a screen',
      shifts: from(transformed(back.value, screenValues(asked, channels))),
    },
  ];
  // Inks are converted once more from the space of another press, which nobody knows.
  if (channels === 3)
    made.push({
      cause: 'profile',
      words: 'converted once more on the way to the device',
      shifts: from(transformed(back.value, transformed(to.value, screenLabs(device)))),
    });
  const { chart, dark } = ground;
  if (chart !== undefined && dark !== undefined)
    made.push(...brightened(chart, dark, device, asked, printed));
  if (seen.light.name !== DAYLIGHT.light.name) made.push(underLight(ground, printed, device));
  return success(made);
}

/** Differences of two rows of colours as an eye weighs them. */
function shiftsOf(asked: Float64Array, lab: ArrayLike<number>): Float64Array[] {
  return Array.from({ length: asked.length / 3 }, (_, i) => {
    const [l, a, b] = labAt(asked, i);
    return seenShift(eyeWeights([l, a, b]), lab[3 * i] - l, lab[3 * i + 1] - a, lab[3 * i + 2] - b);
  });
}

/** Device values with another share of ink; light takes ink where it is not. */
function inked(device: Float64Array, channels: number, share: number): Float64Array {
  return device.map((value) =>
    channels === 3 ? 1 - Math.min(1, share * (1 - value)) : Math.min(1, share * value),
  );
}

/** The colours as values of a screen, as light or as the inks that complement it. */
function screenValues(lab: Float64Array, channels: number): Float64Array {
  return Float64Array.from(
    Array.from({ length: lab.length / 3 }, (_, i) => {
      const rgb = labToScreen(labAt(lab, i)).rgb.map((level) => level / 255);
      if (channels === 3) return rgb;
      const black = 1 - Math.max(...rgb);
      const inks = rgb.map((value) => (black >= 1 ? 0 : (1 - value - black) / (1 - black)));
      return [...inks, black, ...Array<number>(Math.max(0, channels - 4)).fill(0)];
    }).flat(),
  );
}

/** Light for a device as a conversion takes it that was not told so: as values of a screen. */
function screenLabs(device: Float64Array): Float64Array {
  return Float64Array.from(
    Array.from({ length: device.length / 3 }, (_, i) => [
      ...srgbToLab(Array.from(device.subarray(3 * i, 3 * i + 3))),
    ]).flat(),
  );
}

/** Colours where less ultraviolet acts than M1 measured with. */
function brightened(
  { channels, device: values, grid, spectra }: SpectralChart,
  dark: ArrayLike<number>,
  device: Float64Array,
  asked: Float64Array,
  printed: Float64Array,
): EyeHypothesis[] {
  const [lit, unlit] = [spectra, dark].map((own) =>
    chartModel(
      channels,
      Float64Array.from(values),
      coloursUnder({ grid, values: Float64Array.from(own) }, DAYLIGHT),
    )(device),
  );
  const whole = labOf(lit);
  return ULTRAVIOLET.map((share) => {
    const lab = labOf(unlit.map((value, i) => value + share * (lit[i] - value)));
    return {
      cause: 'brightener' as const,
      words: `${share === 0 ? 'no ultraviolet acts' : `a share of ${share.toFixed(2)} of the ultraviolet acts`} in this light`,
      shifts: shiftsOf(
        asked,
        lab.map((value, i) => printed[i] + value - whole[i]),
      ),
    };
  });
}

/** Print and reference part in the light; where the reference has no spectrum, it may be in any way. */
function underLight(
  { colours, chart, seen }: EyeGround,
  printed: Float64Array,
  device: Float64Array,
): EyeHypothesis {
  const words = `print and reference part in ${seen.light.name}`;
  const known =
    chart === undefined || colours.every(({ spectrum }) => spectrum === undefined) ? undefined : chart;
  if (known === undefined) return { cause: 'light', words, shifts: colours.map(() => null) };
  const { channels, device: values, grid, spectra } = known;
  const [daylight, other] = [DAYLIGHT, seen].map((light) =>
    labOf(
      chartModel(
        channels,
        Float64Array.from(values),
        coloursUnder({ grid, values: Float64Array.from(spectra) }, light),
      )(device),
    ),
  );
  return {
    cause: 'light',
    words,
    shifts: colours.map(({ spectrum }, i) => {
      if (spectrum === undefined) return null;
      const reference = labOf(
        coloursUnder({ grid: spectrum.grid, values: Float64Array.from(spectrum.values) }, seen),
      );
      const [l, a, b] = [0, 1, 2].map((axis) => {
        const at = 3 * i + axis;
        return printed[at] + other[at] - daylight[at] - reference[axis];
      });
      return seenShift(eyeWeights(colours[i].lab), l, a, b);
    }),
  };
}

function labOf(xyz: Float64Array): Float64Array {
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  return lab;
}
