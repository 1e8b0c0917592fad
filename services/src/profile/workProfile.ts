import { channelCount, RGB, sameProcess } from '@melto/core/device/process';
import { fitReport, reportedInks, reportedRgb } from '@melto/core/characterise/fitReport';
import type { FitReport } from '@melto/core/characterise/fitReport';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { inkUncertainty, rgbUncertainty } from '@melto/core/characterise/modelUncertainty';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { uncertaintyMap } from '@melto/core/characterise/uncertaintyMap';
import { relativeToPaper } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile, buildInkProfileOn } from '@melto/core/profile/buildInkProfile';
import type { InkProfileOptions } from '@melto/core/profile/buildInkProfile';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import type { BuildProgress } from '@melto/core/profile/buildRgbProfile';
import { characterisationText } from '@melto/core/profile/characterisationText';
import { inkProfileReport } from '@melto/core/profile/inkReport';
import type { OutputProfileOptions } from '@melto/core/profile/outputProfile';
import { pathSmoothness } from '@melto/core/profile/pathSmoothness';
import { separationFrom } from '@melto/core/separate/separation';
import { separationIssue } from '@melto/core/separate/placedSeparation';
import { turningInks } from '@melto/core/separate/turningInks';
import type { TurningInk } from '@melto/core/separate/turningInks';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import type { ProfileChoices, ProfileDetail } from '../ledger/kinds/profileKind.ts';
import { barePaper } from './pooledReadings.ts';
import type { PooledReadings } from './pooledReadings.ts';
import { refinementFigures, wantedColours } from './refinementFigures.ts';
import { DEFAULT_SEPARATION } from './requestProfile.ts';

/** A profile as its readings and choices make it, with what is told of it. */
export interface Built extends Pick<ProfileDetail, 'inks' | 'uncertainty' | 'smoothness' | 'refinement'> {
  readonly profile: IccProfile;
  readonly report: FitReport;
  /** Inks that turn back below the limits that were asked for. */
  readonly turning?: readonly TurningInk[];
}

/** Works a profile out: the same readings and choices, name and time give the same bytes. */
export function workProfile(
  context: Pick<Context, 'workIntent'>,
  pooled: PooledReadings,
  choices: ProfileChoices,
  { name, madeMs }: { readonly name: string; readonly madeMs: number },
  onProgress: BuildProgress,
): Promise<Built> {
  const { process } = pooled.first.condition;
  const about: OutputProfileOptions = {
    version: choices.version,
    description: name,
    copyright: 'No rights reserved',
    createdMs: madeMs,
    characterisation: characterisationText(pooled.set),
    paperXyz: barePaper(process, pooled),
    adaptation: pooled.adaptation,
  };
  onProgress(0.02, 'Fitting the model');
  return sameProcess(process, RGB)
    ? Promise.resolve(fromRgb(pooled, about, choices, onProgress))
    : fromInks(context, pooled, about, choices, onProgress);
}

function fromRgb(
  { first, added, device, xyz }: PooledReadings,
  about: OutputProfileOptions,
  { tableSize }: ProfileChoices,
  onProgress: BuildProgress,
): Built {
  const before =
    added.length === 0 || first.set.device === undefined
      ? undefined
      : fitRgbModel(first.set.device, first.xyz);
  const model = fitRgbModel(device, xyz);
  const reported = reportedRgb(model);
  onProgress(0.35, 'Filling the tables');
  const { profile } = buildRgbProfile(model, { ...about, tableSize }, (fraction, words) =>
    onProgress(0.35 + 0.55 * fraction, words),
  );
  onProgress(0.9, 'Looking where the model is sure');
  return {
    profile,
    report: fitReport(reported, device, xyz),
    uncertainty: uncertaintyMap(rgbUncertainty(model), first.condition.process),
    smoothness: smoothnessOf(profile),
    refinement:
      before === undefined
        ? undefined
        : refinementFigures(first, added, wantedColours(added), reportedRgb(before), reported, profile),
  };
}

async function fromInks(
  { workIntent }: Pick<Context, 'workIntent'>,
  { first, added, device, xyz }: PooledReadings,
  about: OutputProfileOptions,
  { tableSize, separation: choice }: ProfileChoices,
  onProgress: BuildProgress,
): Promise<Built> {
  const { process } = first.condition;
  const channels = channelCount(process);
  const separation = separationFrom({
    inkLimits: new Array<number>(channels).fill(1),
    ...(choice ?? DEFAULT_SEPARATION),
  });
  const fitting =
    added.length === 0 ? 'Fitting the model' : 'Fitting the model without and with what was added';
  const before =
    added.length === 0 || first.set.device === undefined
      ? undefined
      : fitInkModel(first.set.device, channels, first.xyz, 1, (f) => onProgress(0.02 + 0.12 * f, fitting));
  const start = before === undefined ? 0.02 : 0.14;
  const model = fitInkModel(device, channels, xyz, 1, (f) => onProgress(start + (0.3 - start) * f, fitting));
  const issue = separationIssue(model, process);
  if (issue !== undefined)
    throw new Problem('bad-input', `${issue}.`, 'Read a chart that Melto made for these inks.', 'readingId');
  const wanted = wantedColours(added);
  const asked = wanted.map((colour) => colour.asked);
  const options: InkProfileOptions = {
    ...{ ...about, tableSize, separation, process },
    anchors: asked.length === 0 ? undefined : relativeToPaper(asked, about.paperXyz),
  };
  const building: BuildProgress = (fraction, words) => onProgress(0.3 + 0.6 * fraction, words);
  const { profile, separation: used = separation } =
    workIntent === undefined
      ? buildInkProfile(model, options, building)
      : await buildInkProfileOn(workIntent, model, options, building);
  onProgress(0.9, 'Looking at the result');
  const { roundTrip, totalInk, reversals } = inkProfileReport(model, profile, device, xyz, used);
  onProgress(0.93, 'Looking where the model is sure');
  return {
    profile,
    report: fitReport(reportedInks(model, process), device, xyz),
    inks: { roundTrip, totalInk, reversals },
    turning: turningInks(model).filter(({ ink, limit }) => separation.inkLimits[ink] > limit),
    uncertainty: uncertaintyMap(inkUncertainty(model), process, separation.totalInk),
    smoothness: smoothnessOf(profile),
    refinement:
      before === undefined
        ? undefined
        : refinementFigures(
            first,
            added,
            wanted,
            reportedInks(before, process),
            reportedInks(model, process),
            profile,
          ),
  };
}

function smoothnessOf(profile: IccProfile): ProfileDetail['smoothness'] {
  return {
    colorimetric: summariseErrors(pathSmoothness(profile, 'relative').bends),
    perceptual: summariseErrors(pathSmoothness(profile, 'perceptual').bends),
  };
}
