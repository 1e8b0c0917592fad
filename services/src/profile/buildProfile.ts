import { channelCount, RGB, sameProcess } from '@melto/core/device/process';
import { faultsToSay } from '@melto/core/faults/fault';
import { houseDay } from '@melto/core/time/houseTime';
import { houseZone } from '../kernel/houseZone.ts';
import { profileInForce } from '../ledger/inForce.ts';
import { PROFILE } from '../ledger/kinds/profileKind.ts';
import type { ProfileChoices, ProfileDetail, ProfileSummary } from '../ledger/kinds/profileKind.ts';
import { toStore } from '../ledger/resultKind.ts';
import { keptFaults } from '../reading/readingFaults.ts';
import { DEFAULT_SEPARATION } from './requestProfile.ts';
import { fitReport, reportedInks, reportedRgb } from '@melto/core/characterise/fitReport';
import type { FitReport } from '@melto/core/characterise/fitReport';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { inkUncertainty, rgbUncertainty } from '@melto/core/characterise/modelUncertainty';
import { uncertaintyMap } from '@melto/core/characterise/uncertaintyMap';
import { gamutFigures } from '@melto/core/gamut/gamutFigures';
import { deviceToLab, labToDevice, relativeToPaper } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile, buildInkProfileOn } from '@melto/core/profile/buildInkProfile';
import type { InkProfileOptions } from '@melto/core/profile/buildInkProfile';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import type { BuildProgress } from '@melto/core/profile/buildRgbProfile';
import { characterisationText } from '@melto/core/profile/characterisationText';
import { profileName } from '@melto/core/profile/describeProfile';
import { inkProfileReport } from '@melto/core/profile/inkReport';
import type { OutputProfileOptions } from '@melto/core/profile/outputProfile';
import { pathSmoothness } from '@melto/core/profile/pathSmoothness';
import { unwrap } from '@melto/core/result';
import { modeName } from '@melto/core/device/modeName';
import { turningInks } from '@melto/core/separate/turningInks';
import type { TurningInk } from '@melto/core/separate/turningInks';
import { separationFrom } from '@melto/core/separate/separation';
import { insertResult, insertResultFile } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { barePaper, pooledReadings, whereRead } from './pooledReadings.ts';
import type { PooledReadings } from './pooledReadings.ts';
import { compareProfiles } from './profileComparison.ts';
import { refinementFigures, wantedColours } from './refinementFigures.ts';

/** The work of the job: computes everything, then gives the function that stores it within the job's transaction. */
export async function buildProfile(
  context: Context,
  input: { readonly conditionId: number; readonly choices: ProfileChoices },
  onProgress: BuildProgress,
): Promise<(inner: Context) => Promise<number>> {
  const { choices, conditionId } = input;
  onProgress(0, 'Loading the reading');
  const pooled = await pooledReadings(context, choices.readingId, choices.addedReadingIds);
  const { set } = pooled;
  const { condition, print, reading } = pooled.first;
  const { process } = condition;
  const earlier = await profileInForce(context, conditionId);
  const paperXyz = barePaper(process, pooled);
  onProgress(0.02, 'Fitting the model');
  const madeMs = await domainNow(context);
  const name = profileName(choices.namePattern, {
    device: condition.device,
    stock: condition.stock,
    mode: modeName(condition),
    date: houseDay(madeMs, await houseZone(context)),
  });
  const about: OutputProfileOptions = {
    version: choices.version,
    description: name,
    copyright: 'No rights reserved',
    createdMs: madeMs,
    characterisation: characterisationText(set),
    paperXyz,
  };
  const { profile, report, turning, ...more } = sameProcess(process, RGB)
    ? fromRgb(pooled, about, choices, onProgress)
    : await fromInks(context, pooled, about, choices, onProgress);
  const bytes = writeIcc(profile);
  const warnings = [
    ...(turning ?? []).map(
      ({ ink, limit }) =>
        `${process.channels[ink].name} turns back past ${(100 * limit).toFixed(0)} %: more of it greys. Build with that limit.`,
    ),
    ...(reading.early ? ['The sheet was read before its rest was over.'] : []),
    ...faultsToSay(keptFaults(reading.faults)).map(
      ({ kind }) => `The reading shows a fault: ${kind.replaceAll('-', ' ')}.`,
    ),
  ];
  const summary: ProfileSummary = {
    name,
    version: choices.version,
    tableSize: choices.tableSize,
    mean: report.summary.mean,
    p95: report.summary.p95,
    largest: report.summary.largest,
    repeatability: report.repeatability?.mean ?? null,
    bytes: bytes.length,
    mode: reading.mode,
    code: print.code,
    patches: report.patches,
    ramps: [...report.ramps.map(({ points }) => points), [...report.neutralAxis].reverse()].map((points) =>
      points.filter((_, i) => i % 4 === 0).map(({ lab }) => lab),
    ),
    outline: report.outline,
    warnings,
    gamut: gamutFigures(profile),
  };
  const detail: ProfileDetail = {
    choices,
    report,
    neutral: neutralRamp(profile),
    suspicious: whereRead(pooled, report.outliers),
    ...more,
    compared: earlier === undefined ? undefined : compareProfiles(earlier, profile),
  };
  return async ({ database }) => {
    const { id, version } = await insertResult(
      database,
      { conditionId, ...toStore(PROFILE, { summary, detail }), verdict: null, madeMs },
      {
        readings: [choices.readingId, ...(choices.addedReadingIds ?? [])],
        // The curves that the chart was printed through.
        results: print.curvesResultId === null ? [] : [print.curvesResultId],
      },
    );
    const content = Buffer.from(bytes);
    // Two versions that lie in one folder must not be taken for each other.
    const file = { name: `${name}_v${version}.icc`, mediaType: 'application/vnd.iccprofile', content };
    await insertResultFile(database, id, 'profile', file, context.now());
    return id;
  };
}

interface Built extends Pick<ProfileDetail, 'inks' | 'uncertainty' | 'smoothness' | 'refinement'> {
  readonly profile: IccProfile;
  readonly report: FitReport;
  /** Inks that turn back below the limits that were asked for. */
  readonly turning?: readonly TurningInk[];
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
  { workIntent }: Context,
  { first, added, device, xyz }: PooledReadings,
  about: OutputProfileOptions,
  { tableSize, separation: choice }: ProfileChoices,
  onProgress: BuildProgress,
): Promise<Built> {
  const channels = channelCount(first.condition.process);
  const separation = separationFrom(choice ?? DEFAULT_SEPARATION);
  const fitting =
    added.length === 0 ? 'Fitting the model' : 'Fitting the model without and with what was added';
  const before =
    added.length === 0 || first.set.device === undefined
      ? undefined
      : fitInkModel(first.set.device, channels, first.xyz, 1, (f) => onProgress(0.02 + 0.12 * f, fitting));
  const start = before === undefined ? 0.02 : 0.14;
  const model = fitInkModel(device, channels, xyz, 1, (f) => onProgress(start + (0.3 - start) * f, fitting));
  const wanted = wantedColours(added);
  const asked = wanted.map((colour) => colour.asked);
  const options: InkProfileOptions = {
    ...{ ...about, tableSize, separation },
    anchors: asked.length === 0 ? undefined : relativeToPaper(asked, about.paperXyz),
  };
  const building: BuildProgress = (fraction, words) => onProgress(0.3 + 0.6 * fraction, words);
  const { profile } =
    workIntent === undefined
      ? buildInkProfile(model, options, building)
      : await buildInkProfileOn(workIntent, model, options, building);
  onProgress(0.9, 'Looking at the result');
  const { roundTrip, totalInk, reversals } = inkProfileReport(
    model,
    profile,
    device,
    xyz,
    separation.totalInk,
  );
  onProgress(0.93, 'Looking where the model is sure');
  return {
    profile,
    report: fitReport(reportedInks(model), device, xyz),
    inks: { roundTrip, totalInk, reversals },
    turning: turningInks(model).filter(({ ink, limit }) => separation.inkLimits[ink] > limit),
    uncertainty: uncertaintyMap(inkUncertainty(model), first.condition.process, separation.totalInk),
    smoothness: smoothnessOf(profile),
    refinement:
      before === undefined
        ? undefined
        : refinementFigures(first, added, wanted, reportedInks(before), reportedInks(model), profile),
  };
}

function smoothnessOf(profile: IccProfile): ProfileDetail['smoothness'] {
  return {
    colorimetric: summariseErrors(pathSmoothness(profile, 'relative').bends),
    perceptual: summariseErrors(pathSmoothness(profile, 'perceptual').bends),
  };
}

function neutralRamp(profile: IccProfile): ProfileDetail['neutral'] {
  const steps = 33;
  const asked = Float64Array.from({ length: steps * 3 }, (_, i) =>
    i % 3 === 0 ? (100 * Math.floor(i / 3)) / (steps - 1) : 0,
  );
  const toDevice = unwrap(labToDevice(profile, 'relative'));
  const channels = toDevice.outputs;
  const device = new Float64Array(steps * channels);
  const lab = new Float64Array(asked.length);
  toDevice.apply(asked, device);
  unwrap(deviceToLab(profile, 'relative')).apply(device, lab);
  return Array.from({ length: steps }, (_, i) => ({
    asked: asked[3 * i],
    device: [...device.subarray(channels * i, channels * (i + 1))],
    lab: [...lab.subarray(3 * i, 3 * i + 3)],
  }));
}
