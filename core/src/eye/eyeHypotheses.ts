import { labAt } from '../colour/labAt.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import { labToScreen, srgbToLab } from '../colour/srgb.ts';
import { absoluteWays } from '../icc/absoluteWays.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { chartInLights, DAYLIGHT, movedInLight } from '../light/chartInLights.ts';
import type { ChartInLights, SpectralChart } from '../light/chartInLights.ts';
import { labsUnder } from '../light/colourUnder.ts';
import type { SeenIn } from '../light/colourUnder.ts';
import type { ListedColour } from '../refine/namedColour.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
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

/** How each cause would move each colour of the page from its reference. */
export function eyeHypotheses(ground: EyeGround): Result<EyeHypothesis[]> {
  const { colours, profile, seen } = ground;
  const ways = absoluteWays(profile);
  if (!ways.ok) return ways;
  const { toDevice, toLab } = ways.value;
  const channels = toLab.inputs;
  const device = Float64Array.from(ground.device);
  const asked = Float64Array.from(colours.flatMap(({ lab }) => [...lab]));
  const printed = transformed(toLab, device);
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
      shifts: from(transformed(toLab, inked(device, channels, share))),
    })),
    {
      cause: 'profile',
      words: 'printed past the profile, as values of a screen',
      shifts: from(transformed(toLab, screenValues(asked, channels))),
    },
  ];
  // Inks are converted once more from the space of another press, which nobody knows.
  if (channels === 3)
    made.push({
      cause: 'profile',
      words: 'converted once more on the way to the device',
      shifts: from(transformed(toLab, transformed(toDevice, screenLabs(device)))),
    });
  const { chart, dark } = ground;
  const lit = chart === undefined ? undefined : chartInLights(chart);
  if (chart !== undefined && lit !== undefined && dark !== undefined) {
    const unlit = chartInLights({ ...chart, spectra: dark });
    made.push(...brightened(lit(DAYLIGHT)(device), unlit(DAYLIGHT)(device), asked, printed));
  }
  if (seen.light.name !== DAYLIGHT.light.name) made.push(underLight(ground, lit, printed, device));
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

/** Colours where less ultraviolet acts than M1 measured with: between their XYZ with it and without. */
function brightened(
  lit: Float64Array,
  unlit: Float64Array,
  asked: Float64Array,
  printed: Float64Array,
): EyeHypothesis[] {
  const whole = measuredLabRows(lit);
  return ULTRAVIOLET.map((share) => {
    const lab = measuredLabRows(unlit.map((value, i) => value + share * (lit[i] - value)));
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
  { colours, seen }: EyeGround,
  chart: ChartInLights | undefined,
  printed: Float64Array,
  device: Float64Array,
): EyeHypothesis {
  const words = `print and reference part in ${seen.light.name}`;
  if (chart === undefined || colours.every(({ spectrum }) => spectrum === undefined))
    return { cause: 'light', words, shifts: colours.map(() => null) };
  const moved = movedInLight(chart, device, seen);
  return {
    cause: 'light',
    words,
    shifts: colours.map(({ lab, spectrum }, i) => {
      if (spectrum === undefined) return null;
      const reference = labsUnder(spectrum, seen);
      const [l, a, b] = [0, 1, 2].map(
        (axis) => printed[3 * i + axis] + moved[3 * i + axis] - reference[axis],
      );
      return seenShift(eyeWeights(lab), l, a, b);
    }),
  };
}
