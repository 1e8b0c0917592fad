import { absoluteWays } from '@melto/core/icc/absoluteWays';
import { houseDay } from '@melto/core/time/houseTime';
import { findHouse } from '@melto/store/houses';
import { findHead, findResultFile } from '@melto/store/results';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { fileName } from '../kernel/download.ts';
import type { Download } from '../kernel/download.ts';
import { personName } from '../kernel/person.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionName, conditionOf } from '../ledger/conditions.ts';
import { profileOfResult } from '../ledger/inForce.ts';
import { reportLogo } from '../kernel/reportLogo.ts';
import { colourListOf } from './colourLists.ts';

/** What becomes of a colour list on a condition, by its profile in force, as a page or as PDF. */
export async function colourListReport(
  context: Context,
  listId: number,
  conditionId: number,
  format: 'html' | 'pdf',
): Promise<Download> {
  const { database } = context;
  const list = await colourListOf(context, listId);
  const condition = await conditionOf(context, conditionId);
  const house = await findHouse(database);
  const head = await findHead(database, conditionId, 'profile');
  const file = head === undefined ? undefined : await findResultFile(database, head.id, 'profile');
  if (head === undefined || file === undefined || house === undefined)
    throw new Problem(
      'not-ready',
      `${conditionName(condition)} has no profile in force, which tells what becomes of colours.`,
      'Build a profile first.',
    );
  const profile = await profileOfResult(context, head.id);
  if (!absoluteWays(profile).ok)
    throw new Problem(
      'bad-input',
      `${file.name} does not lead from Lab to the device and back.`,
      'Build a profile of the house’s own.',
    );
  const content = await context.drawFile({
    kind: 'colour list',
    header: {
      list: `${list.name} v${list.version}`,
      origin: list.origin,
      condition: conditionName(condition),
      profile: `v${head.version}, ${file.name}`,
      made: {
        person: await personName(context),
        day: houseDay(await domainNow(context), house.timeZone),
      },
    },
    colours: list.colours.map(({ name, lab }) => ({ name, lab })),
    profile: file.content,
    logo: await reportLogo(context),
    house: house.name,
    format,
  });
  return {
    name: `${fileName(list.name)}_on_${fileName(conditionName(condition))}.${format}`,
    mediaType: format === 'pdf' ? 'application/pdf' : 'text/html; charset=utf-8',
    content,
  };
}
