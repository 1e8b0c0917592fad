import { leastPatches, profiledProcess } from '@melto/core/characterise/leastPatches';
import { inkName } from '@melto/core/device/inkNames';
import { channelCount, CMYK, RGB, sameProcess } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { joinPatchSets } from '@melto/core/cgats/joinPatchSets';
import { patchXyz } from '@melto/core/cgats/patchColours';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import type { InkModel } from '@melto/core/characterise/inkModel';
import { fitReport, reportedRgb } from '@melto/core/characterise/fitReport';
import { fitRgbModel, rgbModelLab } from '@melto/core/characterise/rgbModel';
import type { RgbModel } from '@melto/core/characterise/rgbModel';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { labToDevice, relativeToPaper } from '@melto/core/icc/profileTransform';
import { writeIcc } from '@melto/core/icc/writeIcc';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { adaptationOf, coloursUnder } from '@melto/core/light/colourUnder';
import { MOST_UV, spectraAtUv } from '@melto/core/light/ultraviolet';
import type { Matrix3 } from '@melto/core/numerics/matrix3';
import { summariseErrors } from '@melto/core/numerics/statistics';
import type { ErrorSummary } from '@melto/core/numerics/statistics';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { unwrap } from '@melto/core/result';
import { buildInkProfile, buildInkProfileOn } from '@melto/core/profile/buildInkProfile';
import type { InkProfileOptions } from '@melto/core/profile/buildInkProfile';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import type { BuiltProfile, TableSize } from '@melto/core/profile/buildRgbProfile';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { paperIssue } from '@melto/core/device/paperIssue';
import { issueText } from '@melto/core/result';
import { characterisationText } from '@melto/core/profile/characterisationText';
import { inkProfileReport } from '@melto/core/profile/inkReport';
import type { OutputProfileOptions } from '@melto/core/profile/outputProfile';
import { separationIssue } from '@melto/core/separate/placedSeparation';
import type { Separation } from '@melto/core/separate/separation';
import { limitsWithTurns, turningInks } from '@melto/core/separate/turningInks';
import { colourListFrom, deviceOf, measuredAs, oneOf, readMeasuredFile, report, writeFile } from './files.ts';
import { intentThreads } from '@melto/threads/intentThreads';
import { namedInks } from './namedInks.ts';
import { pairedWith, seenIn } from './light.ts';
import { separationFromOptions } from './separationOptions.ts';
import type { SeparationOptions } from './separationOptions.ts';
import { UsageError } from './usageError.ts';

export interface ProfileBuildOptions extends SeparationOptions {
  readonly measured: string;
  readonly measuredAs?: string;
  readonly out: string;
  readonly icc: string;
  readonly tables: string;
  readonly inks?: string;
  readonly added?: readonly string[];
  readonly colours?: string;
  readonly light: string;
  readonly observer: string;
  readonly withoutUv?: string;
  readonly uv?: string;
  readonly name?: string;
  readonly report?: string;
  readonly json?: boolean;
}

interface Built {
  readonly profile: IccProfile;
  readonly report: {
    readonly summary: ErrorSummary;
    readonly repeatability?: ErrorSummary;
  };
  /** Further lines for people. */
  readonly lines: readonly string[];
}

const MOST_NAMED = 12;

export async function profileBuild(options: ProfileBuildOptions): Promise<void> {
  const version = oneOf(options.icc, '--icc', ['2', '4']) === '2' ? 2 : 4;
  const tableSize = oneOf(options.tables, '--tables', ['small', 'normal', 'large']);
  const set = joinPatchSets(
    [options.measured, ...(options.added ?? [])].map((path) =>
      readMeasuredFile(path, measuredAs(options.measuredAs)),
    ),
  );
  const { device, process } = namedInks(deviceOf(options.measured, set), options);
  const light = sameProcess(process, RGB);
  const inks = channelCount(process);
  if (!profiledProcess(process))
    throw new UsageError(
      `${options.measured}: found ${process.name} values, expected RGB, CMYK, or C, M, Y, K and up to four other inks`,
    );
  const separation = separationFromOptions(options, light ? CMYK : process);
  const seen = seenBy(options, set);
  const xyz = seen === undefined ? patchXyz(set) : seen.xyz;
  if (xyz === undefined)
    throw new UsageError(`${options.measured}: found no colours, expected spectra, XYZ or Lab`);
  const paperXyz = meanPaperXyz(process, device, xyz);
  if (paperXyz === undefined)
    throw new UsageError(
      `${options.measured}: found no bare paper, expected at least one patch of ${light ? 'RGB 255 255 255' : `${process.name} ${'0 '.repeat(inks).trim()}`}`,
    );
  const impossible = paperIssue(paperXyz);
  if (impossible !== undefined) throw new UsageError(`${options.measured}: ${issueText(impossible)}`);
  const least = leastPatches(process);
  if (set.ids.length < least)
    throw new UsageError(`${options.measured}: found ${set.ids.length} patches, expected at least ${least}`);
  if (inks > 4 && options.colours !== undefined)
    throw new UsageError('--colours: colours that come out exactly are for RGB and CMYK so far');
  const started = performance.now();
  const about: OutputProfileOptions = {
    version,
    description: options.name ?? options.out.replace(/^.*\/|\.icc$/g, ''),
    copyright: 'No rights reserved',
    createdMs: Date.now(),
    characterisation: characterisationText(set),
    paperXyz,
    adaptation: seen?.adaptation,
  };
  const built = light
    ? buildFromRgb(device, xyz, about, tableSize, options.colours)
    : await buildFromInks(
        ...([set, process, device, xyz, about, tableSize, separation] as const),
        options.inkLimits !== undefined,
        options.colours,
      );
  const bytes = writeIcc(built.profile);
  const seconds = (performance.now() - started) / 1000;
  writeFile(options.out, bytes);
  if (options.report !== undefined) writeFile(options.report, `${JSON.stringify(built.report, null, 2)}\n`);
  const { summary, repeatability } = built.report;
  report(options.json, { out: options.out, bytes: bytes.length, seconds, ...built.report }, [
    ...set.notes,
    `cross-validated ΔE00, reading noise included: mean ${summary.mean.toFixed(2)}, 95 % under ${summary.p95.toFixed(2)}, largest ${summary.largest.toFixed(2)}`,
    repeatability === undefined
      ? 'no repeated patches'
      : `repeated patches differ from their mean by ${repeatability.mean.toFixed(2)} ΔE00`,
    ...built.lines,
    `${options.out}: version ${version}, ${bytes.length} bytes, ${seconds.toFixed(1)} s`,
  ]);
}

/** Colours as the light asked for shows them; undefined for D50, the 2° observer and ultraviolet as it was read. */
function seenBy(
  { light, observer, withoutUv, uv, measured, measuredAs: told }: ProfileBuildOptions,
  set: PatchSet,
): { readonly xyz: Float64Array; readonly adaptation: Matrix3 } | undefined {
  const seen = seenIn({ light, observer });
  if ((withoutUv === undefined) !== (uv === undefined))
    throw new UsageError(
      '--without-uv and --uv belong together: a reading without ultraviolet, and the share that acts',
    );
  if (light === 'D50' && observer === '2' && withoutUv === undefined) return undefined;
  if (set.spectra === undefined)
    throw new UsageError(
      `${measured}: found no spectra of like wavelengths, expected them for a light of its own`,
    );
  let { spectra } = set;
  if (withoutUv !== undefined) {
    const share = Number(uv);
    if (!(share >= 0 && share <= MOST_UV))
      throw new UsageError(`--uv: found ${uv ?? ''}, expected 0 to ${MOST_UV}`);
    spectra = spectraAtUv(pairedWith(set, withoutUv, measuredAs(told)), share);
  }
  return { xyz: coloursUnder(spectra, seen), adaptation: adaptationOf(seen) };
}

function buildFromRgb(
  device: Float64Array,
  xyz: Float64Array,
  about: OutputProfileOptions,
  tableSize: TableSize,
  colours: string | undefined,
): Built {
  const model = fitRgbModel(device, xyz);
  const { profile } = buildRgbProfile(model, { ...about, tableSize });
  const lines = colours === undefined ? [] : [listLine(colourListFrom(colours), model, profile)];
  return { profile, report: fitReport(reportedRgb(model), device, xyz), lines };
}

/** How the colours of a list come out by the model: their repeated readings weigh in it by themselves. */
function listLine(colours: readonly NamedColour[], model: RgbModel, profile: IccProfile): string {
  const asked = Float64Array.from(colours.flatMap(({ lab }) => [...lab]));
  const device = new Float64Array(asked.length);
  const printed = new Float64Array(asked.length);
  unwrap(labToDevice(profile, 'absolute')).apply(asked, device);
  rgbModelLab(model, device, printed);
  const { mean, largest } = summariseErrors(deltaE2000Rows(asked, printed));
  return `${colours.length} colours of the list by the model: mean ${mean.toFixed(2)}, largest ${largest.toFixed(2)} ΔE00`;
}

/** Builds with all cores where the bundle has its threads. */
async function builtOnThreads(model: InkModel, options: InkProfileOptions): Promise<BuiltProfile> {
  const threads = intentThreads(new URL('./inkIntents.mjs', import.meta.url));
  if (threads === undefined) return buildInkProfile(model, options);
  try {
    return await buildInkProfileOn(threads.work, model, options);
  } finally {
    await threads.end();
  }
}

async function buildFromInks(
  set: PatchSet,
  process: Process,
  device: Float64Array,
  xyz: Float64Array,
  about: OutputProfileOptions,
  tableSize: TableSize,
  asked: Separation,
  limited: boolean,
  colours: string | undefined,
): Promise<Built> {
  const model = fitInkModel(device, channelCount(process), xyz);
  const issue = separationIssue(model, process);
  if (issue !== undefined) throw new UsageError(`${about.description}: ${issue}`);
  const turning = turningInks(model).filter(({ ink, limit }) => asked.inkLimits[ink] > limit);
  // What a person says of limits is kept; it is told then what they cost.
  const separation = limited ? asked : { ...asked, inkLimits: limitsWithTurns(asked.inkLimits, turning) };
  const options: InkProfileOptions = {
    ...about,
    tableSize,
    separation,
    process,
    anchors:
      colours === undefined
        ? undefined
        : relativeToPaper(
            colourListFrom(colours).map(({ lab }) => lab),
            about.paperXyz,
          ),
  };
  const { profile, separation: used = separation } = await builtOnThreads(model, options);
  const found = inkProfileReport(model, profile, device, xyz, used);
  const black = found.neutralAxis[0];
  return {
    profile,
    report: found,
    lines: [
      `round trip of colours in gamut: mean ${found.roundTrip.mean.toFixed(2)}, 95 % under ${found.roundTrip.p95.toFixed(2)}`,
      ...turning.map(
        ({ ink, limit, fall }) =>
          `${inkName(process.channels[ink].name).toLowerCase()} turns back past ${(100 * limit).toFixed(0)} %, its solid is ${fall.toFixed(1)} ΔE*ab nearer to the paper: ${limited ? 'its colours there are found twice, limit it' : 'it is limited to that'}`,
      ),
      `total ink ${(100 * found.totalInk).toFixed(1)} %, black L* ${black.lab[0].toFixed(1)} of ${black.inks.map((ink) => (100 * ink).toFixed(0)).join(' ')}`,
      ...(found.outliers.length === 0
        ? []
        : [
            `worth another reading: patches ${found.outliers
              .slice(0, MOST_NAMED)
              .map((row) => set.ids[row])
              .join(
                ', ',
              )}${found.outliers.length > MOST_NAMED ? ` and ${found.outliers.length - MOST_NAMED} more` : ''}`,
          ]),
    ],
  };
}
