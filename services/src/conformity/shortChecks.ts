import { layoutChart } from '@melto/core/charts/layoutChart';
import { SHORT_CHECK_NEEDS } from '@melto/core/charts/pageGeometry';
import type { PaperName } from '@melto/core/charts/pageGeometry';
import { shortCheckColours } from '@melto/core/charts/shortCheckChart';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { HOUSE_PHOTO, judgeShortCheck } from '@melto/core/conformity/shortCheck';
import type { ShortCheckResult } from '@melto/core/conformity/shortCheck';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { unwrap } from '@melto/core/result';
import type { ReportHeader } from '@melto/paper/report/shortCheckModel';
import { findResult, findResultFile, insertResult } from '@melto/store/results';
import { storeChart } from '../charts/charts.ts';
import { domainNow } from '../kernel/clock.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { printChart } from '../charts/printing.ts';
import type { Printed, PrintInput } from '../charts/printing.ts';
import { loadReading } from '../reading/readings.ts';
import type { ProfileSummary } from '../profile/profiles.ts';
import { personName } from '../kernel/person.ts';

export interface CheckSummary {
  readonly mean: number;
  readonly meanLimit: number;
  readonly largest: number;
  readonly largestLimit: number;
  readonly tight: boolean;
  readonly repeats: number;
  readonly code: string;
}

export interface CheckDetail {
  readonly header: ReportHeader;
  readonly check: ShortCheckResult;
}

/** A colour counts as in gamut where the profile's own round trip comes back within this ΔE00. */
const IN_GAMUT = 1;

async function profileOf(services: Services, resultId: number): Promise<IccProfile> {
  const file = await findResultFile(services.database, resultId, 'profile');
  if (file === undefined)
    throw new Problem('conflict', 'The profile of this print is gone.', 'Print the check again.');
  return unwrap(readIcc(file.content));
}

/** Prints the short check through the profile in force. */
export async function printShortCheck(
  services: Services,
  conditionId: number,
  profileResultId: number,
  input: PrintInput & { readonly paper: PaperName },
): Promise<Printed> {
  const profile = await profileOf(services, profileResultId);
  const colours = shortCheckColours();
  const lab = Float64Array.from(colours.flatMap((colour) => [...colour.lab]));
  const device = new Float64Array(lab.length);
  unwrap(labToDevice(profile, 'relative')).apply(lab, device);
  // The device takes 8-bit values.
  const values = device.map((value) => Math.round(value * 255) / 255);
  const seed = services.seed();
  const layout = layoutChart('rgb', values, input.paper, seed, SHORT_CHECK_NEEDS);
  const chartId = await storeChart(services, {
    conditionId,
    purpose: 'short-check',
    title: 'Short check',
    paper: input.paper,
    seed,
    device: values,
    names: colours.map(({ name }) => name),
    layout,
    lab,
  });
  return printChart(services, chartId, input, { profileResultId, values });
}

/** Judges a complete reading of a short check and stores the check with its report. */
export async function judgeCompleteCheck(services: Services, readingId: number): Promise<number> {
  const loaded = await loadReading(services, readingId);
  const { print, chart, set, xyz, condition, reading } = loaded;
  const { device } = set;
  if (print.profileResultId === null || chart.set.lab === undefined || device === undefined)
    throw new Error(`print ${print.code} is no short check`);
  const profile = await profileOf(services, print.profileResultId);
  const profileRow = await findResult(services.database, print.profileResultId);
  const asked = chart.set.lab;
  const predicted = new Float64Array(asked.length);
  const relative = new Float64Array(asked.length);
  const exact = new Float64Array(asked.length);
  unwrap(deviceToLab(profile, 'absolute')).apply(device, predicted);
  unwrap(labToDevice(profile, 'relative')).apply(asked, exact);
  unwrap(deviceToLab(profile, 'relative')).apply(exact, relative);
  const labAt = (values: Float64Array, i: number): Lab => [
    values[3 * i],
    values[3 * i + 1],
    values[3 * i + 2],
  ];
  const paper = meanPaperXyz(device, 3, 1, xyz);
  if (paper === undefined) throw new Error(`short check ${print.code} has no paper`);
  const check = judgeShortCheck(
    set.ids.map((_, i) => ({
      name: set.names?.[i] ?? set.ids[i],
      asked: labAt(asked, i),
      device: [...device.subarray(3 * i, 3 * i + 3)],
      xyz: [xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]],
      predicted: labAt(predicted, i),
      inGamut: deltaE2000(labAt(asked, i), labAt(relative, i)) <= IN_GAMUT,
    })),
    paper,
    HOUSE_PHOTO,
  );
  const madeMs = await domainNow(services);
  const profileSummary =
    profileRow === undefined ? undefined : (JSON.parse(profileRow.summary) as ProfileSummary);
  const header: ReportHeader = {
    condition: `${condition.device} / ${condition.stock} / ${condition.mode}`,
    sheet: `${print.code}-1`,
    profile: `${profileSummary?.name ?? ''}, version ${profileRow?.version ?? ''}`,
    instrument: reading.instrument ?? 'from a file',
    mode: reading.mode,
    person: await personName(services),
    madeMs,
    printedMs: print.printedMs,
    early: reading.early,
  };
  const summary: CheckSummary = {
    mean: check.reached.mean,
    meanLimit: check.limits.mean,
    largest: check.reached.largest,
    largestLimit: check.limits.largest,
    tight: check.tight,
    repeats: check.repeats.mean,
    code: print.code,
  };
  const detail: CheckDetail = { header, check };
  return services.database.transaction(async (sql) => {
    const { id } = await insertResult(
      sql,
      { conditionId: print.conditionId, link: 'conformity', verdict: check.verdict, summary, detail, madeMs },
      { readings: [readingId], results: [print.profileResultId ?? 0] },
      LOCAL_PERSON,
    );
    return id;
  });
}
