import { channelCount } from '@melto/core/device/process';
import type { PaperName } from '@melto/core/charts/pageGeometry';
import { coloursUnder } from '@melto/core/light/colourUnder';
import type { StudyData } from '@melto/core/light/predictStudyPage';
import { studyValues } from '@melto/core/light/studyValues';
import { spectraAtUv } from '@melto/core/light/ultraviolet';
import { unwrap } from '@melto/core/result';
import type { Observer } from '@melto/core/spectral/xyzWeights';
import { houseDay } from '@melto/core/time/houseTime';
import { processTag } from '@melto/paper/namedInks';
import { drawStudyPage } from '@melto/paper/studyPage';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import type { Download } from '../kernel/download.ts';
import { houseZone } from '../kernel/houseZone.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionName, conditionOf } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { curvesInForce, profileOfResult } from '../ledger/inForce.ts';
import { PROFILE } from '../ledger/kinds/profileKind.ts';
import { storedHead } from '../ledger/storedResult.ts';
import { viewingLight } from '../light/viewingLights.ts';
import { loadReading } from '../reading/loadReading.ts';
import { sheetBrightener, tellsShares, ultravioletPair } from './ultraviolet.ts';

/** What a study of a condition stands on. */
export interface StudyGround {
  readonly condition: ConditionRow;
  /** The reading that the profile in force was built from. */
  readonly readingId: number;
  /** Device values of the page's fields, as files and drivers take them: 8 bits. */
  readonly fields: Float64Array;
}

export async function studyGround(context: Context, conditionId: number): Promise<StudyGround> {
  const condition = await conditionOf(context, conditionId);
  const head = await storedHead(context, conditionId, PROFILE);
  if (head === undefined)
    throw new Problem(
      'not-ready',
      'A brightener study is printed through the profile in force, and none was built here yet.',
      'Build a profile first.',
    );
  const profile = await profileOfResult(context, head.row.id);
  return {
    condition,
    readingId: head.detail.choices.readingId,
    fields: unwrap(studyValues(profile)),
  };
}

/** The page of a study as PDF, in values of the device. */
export async function studyPage(context: Context, conditionId: number, paper: PaperName): Promise<Download> {
  const { condition, fields } = await studyGround(context, conditionId);
  const channels = channelCount(condition.process);
  const nowMs = await domainNow(context);
  const curves = (await curvesInForce(context, conditionId)) !== undefined;
  const drawing = drawStudyPage(
    paper,
    Array.from({ length: fields.length / channels }, (_, i) => [
      ...fields.subarray(i * channels, (i + 1) * channels),
    ]),
    {
      condition: conditionName(condition),
      date: houseDay(nowMs, await houseZone(context)),
      how: `print without colour management${curves ? ', through the curves in force' : ''}`,
    },
  );
  return {
    name: `Brightener study ${conditionName(condition)}.pdf`,
    mediaType: 'application/pdf',
    content: await context.drawFile({
      ...{ kind: 'drawn', drawings: [drawing], title: 'Brightener study', madeMs: nowMs },
      tag: processTag(condition.process),
    }),
  };
}

/** What tells how the page looks in a light; refused where the chart was not read in M1 and in M2. */
export async function studyData(
  context: Context,
  conditionId: number,
  { key, observer }: { readonly key: string; readonly observer: Observer },
): Promise<StudyData> {
  const { condition, readingId, fields } = await studyGround(context, conditionId);
  const pair = await sheetBrightener(context, readingId);
  const lit = await loadReading(context, readingId);
  const { device } = lit.set;
  if (!tellsShares(pair, readingId) || device === undefined)
    throw new Problem(
      'not-ready',
      `${lit.print.code}, which the profile was built from, was not read in M1 and in M2.`,
      'Read it in the other mode as well: what ultraviolet does shows between the two.',
    );
  const seen = { light: await viewingLight(context, key), observer };
  const spectra = await ultravioletPair(context, lit, pair.withoutId);
  return {
    channels: channelCount(condition.process),
    device: [...device],
    without: [...coloursUnder(spectraAtUv(spectra, 0), seen)],
    lit: [...coloursUnder(spectraAtUv(spectra, 1), seen)],
    fields: [...fields],
  };
}
