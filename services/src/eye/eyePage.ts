import type { PaperName } from '@melto/core/charts/pageGeometry';
import { channelCount } from '@melto/core/device/process';
import { eyeValues } from '@melto/core/eye/eyeValues';
import type { EyeValues } from '@melto/core/eye/eyeValues';
import { EYE_MOST_COLOURS, REFERENCE_COLOURS } from '@melto/core/eye/referenceColours';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { unwrap } from '@melto/core/result';
import { houseDay } from '@melto/core/time/houseTime';
import { drawEyePages } from '@melto/paper/eyePage';
import { processTag } from '@melto/paper/namedInks';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import type { Download } from '../kernel/download.ts';
import { houseZone } from '../kernel/houseZone.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionName, conditionOf } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { curvesInForce, profileInForce } from '../ledger/inForce.ts';
import { colourListOf } from '../lists/colourLists.ts';

/** What a page of an eye's check is made of. */
export interface EyePage extends EyeValues {
  readonly condition: ConditionRow;
  /** The profile in force. */
  readonly resultId: number;
  readonly version: number;
  readonly listName: string;
  readonly colours: readonly ListedColour[];
}

/** The colours of a page: those of a list of the library, or the reference set. */
export async function eyePage(
  context: Context,
  conditionId: number,
  listId: number | undefined,
): Promise<EyePage> {
  const condition = await conditionOf(context, conditionId);
  const list = listId === undefined ? undefined : await colourListOf(context, listId);
  const colours = list?.colours ?? REFERENCE_COLOURS;
  if (colours.length > EYE_MOST_COLOURS)
    throw new Problem(
      'bad-input',
      `${list?.name ?? 'The list'} has ${colours.length} colours; an eye looks at ${EYE_MOST_COLOURS} at most.`,
      'Keep a shorter list for it.',
      'listId',
    );
  const head = await profileInForce(context, conditionId);
  if (head === undefined)
    throw new Problem(
      'not-ready',
      'An eye’s check is printed through the profile in force, and none was built here yet.',
      'Build a profile first.',
    );
  return {
    condition,
    resultId: head.resultId,
    version: head.version,
    listName: list === undefined ? 'Reference colours' : `${list.name} v${list.version}`,
    colours,
    ...unwrap(eyeValues(head.profile, colours)),
  };
}

/** The pages of an eye's check as PDF, in values of the device. */
export async function eyeFile(
  context: Context,
  conditionId: number,
  listId: number | undefined,
  paper: PaperName,
): Promise<Download> {
  const page = await eyePage(context, conditionId, listId);
  const { condition, colours, device, printed } = page;
  const channels = channelCount(condition.process);
  const nowMs = await domainNow(context);
  const curves = (await curvesInForce(context, conditionId)) !== undefined;
  const drawings = drawEyePages(
    paper,
    colours.map(({ name }, i) => ({
      name,
      device: [...device.subarray(i * channels, (i + 1) * channels)],
      beyond: printed[i].deltaE,
    })),
    {
      list: page.listName,
      condition: conditionName(condition),
      date: houseDay(nowMs, await houseZone(context)),
      how: `profile v${page.version} is in these values: print without colour management${curves ? ', through the curves in force' : ''}`,
    },
  );
  return {
    name: `Eye’s check ${conditionName(condition)}.pdf`,
    mediaType: 'application/pdf',
    content: await context.drawFile({
      ...{ kind: 'drawn', drawings, title: 'Eye’s check', madeMs: nowMs },
      tag: processTag(condition.process),
    }),
  };
}
