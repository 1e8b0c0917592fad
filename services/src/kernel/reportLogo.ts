import type { ReportModel } from '@melto/paper/report/reportModel';
import { findLogo, findPicture } from '@melto/store/pictures';
import type { Context } from './context.ts';

/** The house's logo as reports carry it. */
export async function reportLogo({ database }: Context): Promise<ReportModel['logo']> {
  const logo = await findLogo(database);
  const row = logo === undefined ? undefined : await findPicture(database, logo.id);
  if (row === undefined) return undefined;
  const { width, height, png } = row;
  return { width, height, png: Buffer.from(png).toString('base64') };
}
