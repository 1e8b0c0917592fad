import { fitReport, reportedInks, reportedRgb } from '@melto/core/characterise/fitReport';
import type { FitReport } from '@melto/core/characterise/fitReport';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { uncertaintyMap } from '@melto/core/characterise/uncertaintyMap';
import { channelCount, paperValue } from '@melto/core/device/deviceSpace';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { deviceToLab, labToDevice, relativeToPaper } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import type { BuildProgress } from '@melto/core/profile/buildRgbProfile';
import { characterisationText } from '@melto/core/profile/characterisationText';
import { profileName } from '@melto/core/profile/describeProfile';
import { inkProfileReport } from '@melto/core/profile/inkReport';
import type { OutputProfileOptions } from '@melto/core/profile/outputProfile';
import { pathSmoothness } from '@melto/core/profile/pathSmoothness';
import { unwrap } from '@melto/core/result';
import { separationFrom } from '@melto/core/separate/separation';
import type { Sql } from '@melto/store/database';
import { insertResult, insertResultFile } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { pooledReadings, whereRead } from './pooledReadings.ts';
import type { PooledReadings } from './pooledReadings.ts';
import { Problem } from '../kernel/problem.ts';
import { compareProfiles } from './profileComparison.ts';
import { DEFAULT_SEPARATION, profileInForce } from './profiles.ts';
import type { ProfileChoices, ProfileDetail, ProfileSummary } from './profiles.ts';
import { refinementFigures, wantedColours } from './refinementFigures.ts';

/** The work of the job: computes everything, then gives the function that stores it within the job's transaction. */
export async function buildProfile(
  services: Services,
  input: { readonly conditionId: number; readonly choices: ProfileChoices },
  onProgress: BuildProgress,
): Promise<(sql: Sql) => Promise<number>> {
  const { choices, conditionId } = input;
  onProgress(0, 'Loading the reading');
  const pooled = await pooledReadings(services, choices.readingId, choices.addedReadingIds);
  const { set, xyz, device } = pooled;
  const { condition, print, reading } = pooled.first;
  const { space } = condition;
  const earlier = await profileInForce(services, conditionId);
  const paperXyz = meanPaperXyz(device, channelCount(space), paperValue(space), xyz);
  if (paperXyz === undefined)
    throw new Problem('bad-input', 'The reading has no bare paper.', 'Print a chart that has it.');
  onProgress(0.02, 'Fitting the model');
  const madeMs = await domainNow(services);
  const name = profileName(choices.namePattern, {
    device: condition.device,
    stock: condition.stock,
    mode: condition.mode,
    date: new Date(madeMs).toISOString().slice(0, 10),
  });
  const about: OutputProfileOptions = {
    version: choices.version,
    description: name,
    copyright: 'No rights reserved',
    createdMs: madeMs,
    characterisation: characterisationText(set),
    paperXyz,
  };
  const { profile, report, ...more } =
    space === 'rgb'
      ? fromRgb(device, xyz, about, choices, onProgress)
      : fromInks(pooled, about, choices, onProgress);
  const bytes = writeIcc(profile);
  const warnings = [
    ...(reading.early ? ['The sheet was read before its rest was over.'] : []),
    ...(JSON.parse(reading.faults ?? '[]') as { kind: string }[])
      .filter(({ kind }) => kind !== 'strip-backwards' && kind !== 'read-early')
      .map(({ kind }) => `The reading shows a fault: ${kind.replaceAll('-', ' ')}.`),
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
  };
  const detail: ProfileDetail = {
    choices,
    report,
    neutral: neutralRamp(profile),
    suspicious: whereRead(pooled, report.outliers),
    ...more,
    compared: earlier === undefined ? undefined : compareProfiles(earlier, profile),
  };
  return async (sql) => {
    const { id } = await insertResult(
      sql,
      { conditionId, link: 'profile', verdict: null, summary, detail, madeMs },
      {
        readings: [choices.readingId, ...(choices.addedReadingIds ?? [])],
        // The curves that the chart was printed through.
        results: print.curvesResultId === null ? [] : [print.curvesResultId],
      },
      LOCAL_PERSON,
    );
    await insertResultFile(
      sql,
      id,
      'profile',
      { name: `${name}.icc`, mediaType: 'application/vnd.iccprofile', content: Buffer.from(bytes) },
      services.now(),
    );
    return id;
  };
}

interface Built extends Pick<ProfileDetail, 'inks' | 'uncertainty' | 'smoothness' | 'refinement'> {
  readonly profile: IccProfile;
  readonly report: FitReport;
}

function fromRgb(
  device: Float64Array,
  xyz: Float64Array,
  about: OutputProfileOptions,
  { tableSize }: ProfileChoices,
  onProgress: BuildProgress,
): Built {
  const model = fitRgbModel(device, xyz);
  onProgress(0.35, 'Filling the tables');
  const { profile } = buildRgbProfile(model, { ...about, tableSize }, (fraction, words) =>
    onProgress(0.35 + 0.63 * fraction, words),
  );
  return { profile, report: fitReport(reportedRgb(model), device, xyz) };
}

function fromInks(
  { first, added, device, xyz }: PooledReadings,
  about: OutputProfileOptions,
  { tableSize, separation: choice }: ProfileChoices,
  onProgress: BuildProgress,
): Built {
  const separation = separationFrom(choice ?? DEFAULT_SEPARATION);
  const fitting =
    added.length === 0 ? 'Fitting the model' : 'Fitting the model without and with what was added';
  const before =
    added.length === 0 || first.set.device === undefined
      ? undefined
      : fitInkModel(first.set.device, 4, first.xyz, 1, (f) => onProgress(0.02 + 0.12 * f, fitting));
  const start = before === undefined ? 0.02 : 0.14;
  const model = fitInkModel(device, 4, xyz, 1, (f) => onProgress(start + (0.3 - start) * f, fitting));
  const wanted = wantedColours(added);
  const { profile } = buildInkProfile(
    model,
    {
      ...about,
      tableSize,
      separation,
      anchors: relativeToPaper(
        wanted.map(({ asked }) => asked),
        about.paperXyz,
      ),
    },
    (fraction, words) => onProgress(0.3 + 0.6 * fraction, words),
  );
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
    uncertainty: uncertaintyMap(model, separation.totalInk),
    smoothness: {
      colorimetric: summariseErrors(pathSmoothness(profile, 'relative').bends),
      perceptual: summariseErrors(pathSmoothness(profile, 'perceptual').bends),
    },
    refinement:
      before === undefined ? undefined : refinementFigures(first, added, wanted, before, model, profile),
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
