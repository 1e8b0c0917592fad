import { fitInkModel } from '@melto/core/characterise/inkModel';
import { fitReport, reportedInks, reportedRgb } from '@melto/core/characterise/fitReport';
import type { FitReport } from '@melto/core/characterise/fitReport';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { channelCount, paperValue } from '@melto/core/device/deviceSpace';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { inkProfileReport } from '@melto/core/profile/inkReport';
import type { InkProfileReport } from '@melto/core/profile/inkReport';
import type { OutputProfileOptions } from '@melto/core/profile/outputProfile';
import { separationOf } from '@melto/core/separate/separation';
import type { BlackAmount } from '@melto/core/separate/separation';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import type { BuildProgress, TableSize } from '@melto/core/profile/buildRgbProfile';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { characterisationText } from '@melto/core/profile/characterisationText';
import { profileName } from '@melto/core/profile/describeProfile';
import { unwrap } from '@melto/core/result';
import type { Sql } from '@melto/store/database';
import { insertJob } from '@melto/store/jobs';
import { insertResult, insertResultFile, listHeads } from '@melto/store/results';
import { domainNow } from './clock.ts';
import { conditionOf } from './conditions.ts';
import { LOCAL_PERSON } from './context.ts';
import type { Services } from './context.ts';
import { Problem } from './problem.ts';
import { resultFile } from './versions.ts';
import { completeReading, loadReading } from './readings.ts';

export type { FitReport };

export interface ProfileChoices {
  readonly readingId: number;
  readonly version: 2 | 4;
  readonly tableSize: TableSize;
  readonly namePattern: string;
  /** Ink devices: black generation, and total ink at the input of the curves (1 = 100 %). */
  readonly separation?: { readonly black: BlackAmount; readonly totalInk: number };
}

export interface ProfileSummary {
  readonly name: string;
  readonly version: 2 | 4;
  readonly tableSize: TableSize;
  readonly mean: number;
  readonly p95: number;
  readonly largest: number;
  readonly repeatability: number | null;
  readonly bytes: number;
  readonly mode: string;
  readonly code: string;
  readonly patches: number;
  /** Printed ramps R, G, B and grey from paper to solid, Lab, nine steps each. */
  readonly ramps: readonly (readonly (readonly number[])[])[];
  /** Outline of the gamut in a*b*. */
  readonly outline: readonly (readonly [number, number])[];
  /** The reading was made before its sheet had rested, or shows faults. */
  readonly warnings: readonly string[];
}

export interface ProfileDetail {
  readonly choices: ProfileChoices;
  readonly report: FitReport;
  /** What the colorimetric intent makes of a neutral ramp: asked L*, device, printed Lab. */
  readonly neutral: readonly {
    readonly asked: number;
    readonly device: readonly number[];
    readonly lab: readonly number[];
  }[];
  /** Ink devices: what the separations came to. */
  readonly inks?: Pick<InkProfileReport, 'roundTrip' | 'totalInk' | 'reversals'>;
}

export const BUILD_PROFILE = 'build-profile';

/** Least number of patches that can carry a model. */
const LEAST_PATCHES = { rgb: 40, cmyk: 150, cmykog: 150 } as const;
export const DEFAULT_SEPARATION = { black: 'medium', totalInk: 3 } as const;

export async function requestProfile(
  services: Services,
  conditionId: number,
  choices: ProfileChoices,
): Promise<{ readonly jobId: number }> {
  await conditionOf(services, conditionId);
  const loaded = await completeReading(services, conditionId, choices.readingId);
  const least = LEAST_PATCHES[loaded.condition.space];
  if (loaded.chart.purpose !== 'profile' || loaded.rows.length < least)
    throw new Problem(
      'bad-input',
      `A profile needs a profiling chart of at least ${least} patches.`,
      'Choose a reading of a profiling chart.',
      'readingId',
    );
  return {
    jobId: await insertJob(
      services.database,
      { kind: BUILD_PROFILE, conditionId, input: { conditionId, choices } },
      LOCAL_PERSON,
      services.now(),
    ),
  };
}

/** The work of the job: computes everything, then gives the function that stores it within the job's transaction. */
export async function buildProfile(
  services: Services,
  input: { readonly conditionId: number; readonly choices: ProfileChoices },
  onProgress: BuildProgress,
): Promise<(sql: Sql) => Promise<number>> {
  const { choices, conditionId } = input;
  onProgress(0, 'Loading the reading');
  const loaded = await loadReading(services, choices.readingId);
  const { set, xyz, condition, print, reading } = loaded;
  const device = set.device;
  if (device === undefined) throw new Error(`reading ${choices.readingId} has no device values`);
  const { space } = condition;
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
  const { profile, report, inks } =
    space === 'rgb'
      ? fromRgb(device, xyz, about, choices, onProgress)
      : fromInks(device, xyz, about, choices, onProgress);
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
  const detail: ProfileDetail = { choices, report, neutral: neutralRamp(profile), inks };
  return async (sql) => {
    const { id } = await insertResult(
      sql,
      { conditionId, link: 'profile', verdict: null, summary, detail, madeMs },
      {
        readings: [choices.readingId],
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

interface Built {
  readonly profile: IccProfile;
  readonly report: FitReport;
  readonly inks?: ProfileDetail['inks'];
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
  device: Float64Array,
  xyz: Float64Array,
  about: OutputProfileOptions,
  { tableSize, separation }: ProfileChoices,
  onProgress: BuildProgress,
): Built {
  const { black, totalInk } = separation ?? DEFAULT_SEPARATION;
  const model = fitInkModel(device, 4, xyz, 1, (fraction) =>
    onProgress(0.02 + 0.28 * fraction, 'Fitting the model'),
  );
  const { profile } = buildInkProfile(
    model,
    { ...about, tableSize, separation: separationOf(black, totalInk) },
    (fraction, words) => onProgress(0.3 + 0.66 * fraction, words),
  );
  onProgress(0.97, 'Looking at the result');
  const { roundTrip, totalInk: reached, reversals } = inkProfileReport(model, profile, device, xyz, totalInk);
  return {
    profile,
    report: fitReport(reportedInks(model), device, xyz),
    inks: { roundTrip, totalInk: reached, reversals },
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

/** The profile in force on a condition. */
export async function profileInForce(
  services: Services,
  condition: number,
): Promise<{ readonly resultId: number; readonly profile: IccProfile } | undefined> {
  const head = (await listHeads(services.database, condition)).find(({ link }) => link === 'profile');
  if (head === undefined) return undefined;
  const file = await resultFile(services, head.id, 'profile');
  return { resultId: head.id, profile: unwrap(readIcc(file.content)) };
}
