import { faultsToSay } from '@melto/core/faults/fault';
import { houseDay } from '@melto/core/time/houseTime';
import { modeName } from '@melto/core/device/modeName';
import { gamutFigures } from '@melto/core/gamut/gamutFigures';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { writeIcc } from '@melto/core/icc/writeIcc';
import type { BuildProgress } from '@melto/core/profile/buildRgbProfile';
import { profileName } from '@melto/core/profile/describeProfile';
import { unwrap } from '@melto/core/result';
import { insertResult, insertResultFile } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { houseZone } from '../kernel/houseZone.ts';
import { profileInForce } from '../ledger/inForce.ts';
import { PROFILE } from '../ledger/kinds/profileKind.ts';
import type { ProfileChoices, ProfileDetail, ProfileSummary } from '../ledger/kinds/profileKind.ts';
import { toStore } from '../ledger/resultKind.ts';
import { lightWords } from '../light/viewingLights.ts';
import { keptFaults } from '../reading/readingFaults.ts';
import { pooledReadings, whereRead } from './pooledReadings.ts';
import { compareProfiles } from './profileComparison.ts';
import { workProfile } from './workProfile.ts';

/** The work of the job: computes everything, then gives the function that stores it within the job's transaction. */
export async function buildProfile(
  context: Context,
  input: { readonly conditionId: number; readonly choices: ProfileChoices },
  onProgress: BuildProgress,
): Promise<(inner: Context) => Promise<number>> {
  const { choices, conditionId } = input;
  onProgress(0, 'Loading the reading');
  const pooled = await pooledReadings(context, choices.readingId, choices.addedReadingIds, choices.light);
  const { condition, print, reading } = pooled.first;
  const earlier = await profileInForce(context, conditionId);
  const madeMs = await domainNow(context);
  const light = choices.light === undefined ? undefined : await lightWords(context, choices.light);
  const plain = profileName(choices.namePattern, {
    device: condition.device,
    stock: condition.stock,
    mode: modeName(condition),
    date: houseDay(madeMs, await houseZone(context)),
  });
  // Whoever takes it must not take it for the one of daylight.
  const name = light === undefined ? plain : profileName(`${plain}_${light.replaceAll(' ', '')}`, NO_PARTS);
  const { profile, report, turning, ...more } = await workProfile(
    context,
    pooled,
    choices,
    { name, madeMs },
    onProgress,
  );
  const bytes = writeIcc(profile);
  const warnings = [
    ...(turning ?? []).map(
      ({ ink, limit }) =>
        `${condition.process.channels[ink].name} turns back past ${(100 * limit).toFixed(0)} %: more of it greys. Build with that limit.`,
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
    light,
  };
  const detail: ProfileDetail = {
    choices,
    report,
    neutral: neutralRamp(profile),
    suspicious: whereRead(pooled, report.outliers),
    ...more,
    compared: earlier === undefined ? undefined : compareProfiles(earlier, profile, light !== undefined),
  };
  return async ({ database }) => {
    const { id, version } = await insertResult(
      database,
      { conditionId, ...toStore(PROFILE, { summary, detail }), verdict: null, madeMs },
      {
        readings: [
          choices.readingId,
          ...(choices.addedReadingIds ?? []),
          ...(choices.light?.uv?.withoutReadingIds ?? []),
        ],
        // The curves that the chart was printed through.
        results: print.curvesResultId === null ? [] : [print.curvesResultId],
      },
      // Prints are compared and proven in D50: a profile for another light stands beside that one.
      light === undefined,
    );
    const content = Buffer.from(bytes);
    // Two versions that lie in one folder must not be taken for each other.
    const file = { name: `${name}_v${version}.icc`, mediaType: 'application/vnd.iccprofile', content };
    await insertResultFile(database, id, 'profile', file, context.now());
    return id;
  };
}

const NO_PARTS = { device: '', stock: '', mode: '', date: '' };

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
