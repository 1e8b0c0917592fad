import { labAt } from '@melto/core/colour/labAt';
import { eightBit } from '@melto/core/charts/namedPatches';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { needsOfShortCheck } from '@melto/core/charts/chartForm';
import type { ChartForm } from '@melto/core/charts/chartForm';
import { shortCheckColours } from '@melto/core/charts/shortCheckChart';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import { HOUSE_PHOTO, judgeShortCheck } from '@melto/core/conformity/shortCheck';
import type { ShortCheckLimits, ShortCheckResult } from '@melto/core/conformity/shortCheck';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { channelCount, drivenByInks } from '@melto/core/device/process';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import { unwrap } from '@melto/core/result';
import type { ReportHeader } from '@melto/paper/report/shortCheckModel';
import { insertResult } from '@melto/store/results';
import type { ResultRow } from '@melto/store/results';
import { storeChart } from '../charts/chart.ts';
import { printChart } from '../charts/printChart.ts';
import type { Printed, PrintInput } from '../charts/printChart.ts';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { personName } from '../kernel/person.ts';
import { conditionName, conditionOf } from '../ledger/conditions.ts';
import { curvesInForce, profileOfResult } from '../ledger/inForce.ts';
import { SHORT_CHECK } from '../ledger/kinds/shortCheckKind.ts';
import type { ShortCheckDetail, ShortCheckSummary } from '../ledger/kinds/shortCheckKind.ts';
import { toStore } from '../ledger/resultKind.ts';
import { profileSummary } from '../ledger/resultKinds.ts';
import { requireDaylight } from '../ledger/requireDaylight.ts';
import { resultRow } from '../ledger/storedResult.ts';
import { loadReading } from '../reading/loadReading.ts';
import type { LoadedReading } from '../reading/loadReading.ts';

/** A colour counts as in gamut where the profile's own round trip comes back within this ΔE00. */
const IN_GAMUT = 1;

/** Mean and largest ΔE00 that a house allows; its own in place of those for photo prints. */
export interface OwnLimits {
  readonly mean: number;
  readonly largest: number;
}

interface ShortCheckInput extends PrintInput, ChartForm {
  /** Chosen before the sheet is read. */
  readonly limits?: OwnLimits;
}

/** Prints the short check through the profile in force, and through the curves in force where there are inks. */
export async function printShortCheck(
  context: Context,
  conditionId: number,
  profileResultId: number,
  { limits, paper, reader, patchSize, ...print }: ShortCheckInput,
): Promise<Printed> {
  if (limits !== undefined && !(limits.mean > 0 && limits.largest >= limits.mean))
    throw new Problem(
      'bad-input',
      'The largest difference that is allowed is no smaller than the mean.',
      'Give the mean and the largest ΔE00, both over nought.',
      'limits',
    );
  const { process } = await conditionOf(context, conditionId);
  requireDaylight(await resultRow(context, profileResultId));
  const profile = await profileOfResult(context, profileResultId);
  const colours = shortCheckColours();
  const lab = Float64Array.from(colours.flatMap((colour) => [...colour.lab]));
  const device = new Float64Array(colours.length * channelCount(process));
  unwrap(labToDevice(profile, 'relative')).apply(lab, device);
  // The device takes 8-bit values.
  const values = device.map(eightBit);
  const seed = context.seed();
  const form = { paper, reader, patchSize };
  const layout = layoutChart(process, values, paper, seed, needsOfShortCheck(form));
  const chartId = await storeChart(context, {
    conditionId,
    purpose: 'short-check',
    process,
    title: 'Short check',
    form,
    seed,
    device: values,
    names: colours.map(({ name }) => name),
    layout,
    lab,
  });
  const curves =
    drivenByInks(process) && (await curvesInForce(context, conditionId)) !== undefined
      ? 'in force'
      : undefined;
  const judgedBy = limits === undefined ? undefined : { limits };
  return printChart(context, chartId, { curves, ...print }, { profileResultId, values }, judgedBy);
}

/** The limits that were chosen when the check was printed. */
function limitsOf(judgedBy: string | null): ShortCheckLimits {
  const own =
    judgedBy === null ? undefined : (JSON.parse(judgedBy) as { readonly limits?: OwnLimits }).limits;
  return own === undefined ? HOUSE_PHOTO : { name: 'Own limits', ...own };
}

/** Judges a complete reading of a short check by the profile it was printed through; stores nothing. */
export async function shortCheckOf(
  context: Context,
  { print, chart, set, xyz, condition }: LoadedReading,
): Promise<{ readonly check: ShortCheckResult; readonly profile: ResultRow }> {
  const { device } = set;
  if (print.profileResultId === null || chart.set.lab === undefined || device === undefined)
    throw new Error(`print ${print.code} is no short check`);
  const profile = await profileOfResult(context, print.profileResultId);
  const made = await resultRow(context, print.profileResultId);
  const asked = chart.set.lab;
  const predicted = new Float64Array(asked.length);
  const relative = new Float64Array(asked.length);
  const exact = new Float64Array(device.length);
  unwrap(deviceToLab(profile, 'absolute')).apply(device, predicted);
  unwrap(labToDevice(profile, 'relative')).apply(asked, exact);
  unwrap(deviceToLab(profile, 'relative')).apply(exact, relative);
  const paper = meanPaperXyz(condition.process, device, xyz);
  if (paper === undefined) throw new Error(`short check ${print.code} has no paper`);
  const channels = channelCount(condition.process);
  const check = judgeShortCheck(
    set.ids.map((_, i) => ({
      name: set.names?.[i] ?? set.ids[i],
      asked: labAt(asked, i),
      device: [...device.subarray(channels * i, channels * (i + 1))],
      xyz: [xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]],
      predicted: labAt(predicted, i),
      inGamut: deltaE2000(labAt(asked, i), labAt(relative, i)) <= IN_GAMUT,
    })),
    paper,
    limitsOf(print.judgedBy),
  );
  return { check, profile: made };
}

/** Judges a complete reading of a short check and stores the check with its report. */
export async function judgeCompleteCheck(context: Context, readingId: number): Promise<number> {
  const loaded = await loadReading(context, readingId);
  const { print, condition, reading } = loaded;
  const { check, profile: made } = await shortCheckOf(context, loaded);
  const madeMs = await domainNow(context);
  const header: ReportHeader = {
    condition: conditionName(condition),
    sheet: `${print.code}-1`,
    profile: `${profileSummary(made).name}, version ${made.version}`,
    instrument: reading.instrument ?? 'from a file',
    mode: reading.mode,
    person: await personName(context),
    madeMs,
    printedMs: print.printedMs,
    early: reading.early,
  };
  const summary: ShortCheckSummary = {
    mean: check.reached.mean,
    meanLimit: check.limits.mean,
    largest: check.reached.largest,
    largestLimit: check.limits.largest,
    tight: check.tight,
    repeats: check.repeats.mean,
    code: print.code,
  };
  const detail: ShortCheckDetail = { header, check };
  const sources = { readings: [readingId], results: [made.id] };
  return unitOfWork(context, async ({ database }) => {
    const { id } = await insertResult(
      database,
      {
        conditionId: print.conditionId,
        ...toStore(SHORT_CHECK, { summary, detail }),
        verdict: check.verdict,
        madeMs,
      },
      sources,
    );
    return id;
  });
}
