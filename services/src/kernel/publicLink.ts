import { randomBytes } from 'node:crypto';
import { endReportLinks, findReportLink, insertReportLink, openReportLink } from '@melto/store/reportLinks';
import type { ReportLinkRow, ReportOf } from '@melto/store/reportLinks';
import { actingAs } from './context.ts';
import type { Context } from './context.ts';
import { Problem } from './problem.ts';

/**
 * Makes a report public under a code that cannot be guessed; the open link where there is one. Within a transaction that
 * holds what is reported, so that two who share at once get the same link.
 */
export async function publicLink(
  { database, now }: Context,
  of: ReportOf,
): Promise<{ readonly code: string }> {
  const open = await openReportLink(database, of);
  if (open !== undefined) return { code: open.code };
  const code = randomBytes(24).toString('base64url');
  await insertReportLink(database, code, of, now());
  return { code };
}

/** The code of the open link of a report; null where it is not public. */
export async function publicCode({ database }: Context, of: ReportOf): Promise<string | null> {
  return (await openReportLink(database, of))?.code ?? null;
}

/** Ends the public link of a report; nothing is shown there any more. */
export function endPublicLink({ database, now }: Context, of: ReportOf): Promise<void> {
  return endReportLinks(database, of, now());
}

/** What is behind a public link, and the house that shows it. */
export async function behindLink(
  context: Context,
  code: string,
): Promise<{ readonly link: ReportLinkRow; readonly inHouse: Context }> {
  const link = /^[A-Za-z0-9_-]{32}$/.test(code) ? await findReportLink(context.database, code) : undefined;
  if (link === undefined || link.endedMs !== null)
    throw new Problem(
      'not-found',
      'There is no report under this link.',
      'It may have been ended; ask whoever gave it to you.',
    );
  return { link, inHouse: actingAs(context, { house: link.houseId, person: 0 }) };
}
