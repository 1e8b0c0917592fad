import { CMYK_SHAPE, printedShape, RGB_SHAPE } from '../characterise/fitReport.ts';
import type { DeviceShape, FitReport } from '../characterise/fitReport.ts';
import { profileText } from '../icc/profileText.ts';
import { deviceToLab } from '../icc/profileTransform.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { profileFigures } from './profileFigures.ts';
import type { ProfileFigures } from './profileFigures.ts';

/** What can be said of an output profile that somebody else has built. */
export interface OutputProfileFacts extends Pick<FitReport, 'ramps' | 'outline'> {
  readonly name: string;
  /** Of the ICC specification, as 2.1 or 4.4. */
  readonly version: string;
  readonly colourSpace: string;
  /** Day it says it was made, ISO 8601; null where it does not say. */
  readonly made: string | null;
  /** Rendering intents that have a table of their own, both ways. */
  readonly intents: readonly string[];
  readonly figures: ProfileFigures;
}

const CLASS_WORDS: Readonly<Record<string, string>> = {
  scnr: 'an input profile',
  mntr: 'a profile of a screen or a working space',
  link: 'a device link',
  spac: 'a colour space',
  abst: 'an abstract profile',
  nmcl: 'a list of named colours',
};
/** Devices that profiles from elsewhere are taken for. */
const SHAPES: ReadonlyMap<string, DeviceShape> = new Map([
  ['RGB', RGB_SHAPE],
  ['CMYK', CMYK_SHAPE],
]);
const INTENTS = ['perceptual', 'relative colorimetric', 'saturation'];

/** Facts of an output profile of RGB or CMYK with tables both ways; anything else is an issue in words. */
export function outputProfileFacts(profile: IccProfile): Result<OutputProfileFacts> {
  const { header, tags } = profile;
  if (header.deviceClass !== 'prtr')
    return failure({
      code: 'profile.class',
      path: 'device class',
      expected: 'an output profile of a printer or press',
      found: CLASS_WORDS[header.deviceClass] ?? header.deviceClass,
    });
  const colourSpace = header.colourSpace.trim();
  const shape = SHAPES.get(colourSpace);
  if (shape === undefined)
    return failure({
      code: 'profile.space',
      path: 'colour space',
      expected: [...SHAPES.keys()].join(' or '),
      found: colourSpace,
    });
  const figures = profileFigures(profile);
  const toLab = deviceToLab(profile, 'absolute');
  if (figures === undefined || !toLab.ok)
    return failure({
      code: 'profile.tables',
      path: 'tables',
      expected: 'tables from the device to Lab and back',
      found: tags.has('A2B0') ? 'a table one way only' : 'none',
    });
  return success({
    name: profileText(profile, 'desc') ?? '',
    version: `${header.version.major}.${header.version.minor}`,
    colourSpace,
    made: dayOf(header.created),
    intents: INTENTS.filter((_, i) => tags.has(`A2B${i}`) && tags.has(`B2A${i}`)),
    figures,
    ...printedShape({
      ...shape,
      lab: (device, out) => toLab.value.apply(Float64Array.from(device), out),
    }),
  });
}

function dayOf({ year, month, day }: IccProfile['header']['created']): string | null {
  const two = (value: number): string => String(value).padStart(2, '0');
  const real = year >= 1990 && year < 2200 && month >= 1 && month <= 12 && day >= 1 && day <= 31;
  return real ? `${year}-${two(month)}-${two(day)}` : null;
}
