import { createHash } from 'node:crypto';
import type { ChainIntent } from '@melto/core/chain/chainIntent';
import { leadingBothWays } from '@melto/core/chain/jobSource';
import type { InkSource } from '@melto/core/chain/jobSource';
import { profileText } from '@melto/core/icc/profileText';
import { readIcc } from '@melto/core/icc/readIcc';
import { issueText, unwrap } from '@melto/core/result';
import { findSourceProfile, keepSourceProfile, listSourceProfiles } from '@melto/store/sourceProfiles';
import type { SourceProfileRow } from '@melto/store/sourceProfiles';
import { unitOfWork } from '../kernel/context.ts';
import { profileOfFile } from '../kernel/profileFile.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';

export type { SourceProfileRow };

/** What is kept with the print of a job, in the place of what a wedge is judged by. */
export interface JobTold {
  readonly intent: ChainIntent;
  /** The profile that its inks are meant by; sRGB where none is named. */
  readonly sourceId?: number;
}

export function jobTold(judgedBy: string): JobTold {
  return JSON.parse(judgedBy) as JobTold;
}

const MOST = 40;
const MOST_KEPT = 6;

/** Profiles that jobs of the house carry, the newest first. */
export function sourceProfiles({ database }: Context): Promise<SourceProfileRow[]> {
  return listSourceProfiles(database, MOST);
}

/** Takes a profile that CMYK jobs carry; the same file is kept once. */
export async function takeSourceProfile(
  context: Context,
  fileName: string,
  bytes: Uint8Array,
): Promise<SourceProfileRow> {
  const profile = profileOfFile(fileName, bytes);
  const space = profile.header.colourSpace.trim();
  if (space !== 'CMYK')
    throw new Problem(
      'bad-input',
      `${fileName} is for ${space}; inks of jobs are meant by a profile of CMYK.`,
      'Nothing was stored. Jobs of sRGB need no file.',
    );
  const whole = leadingBothWays(profile);
  if (!whole.ok)
    throw new Problem(
      'bad-input',
      `${fileName} lacks a table: ${whole.issues.map(issueText).join('; ')}.`,
      'Nothing was stored. Give an output profile with tables both ways.',
    );
  const name = (profileText(profile, 'desc') ?? fileName).trim().slice(0, 160) || fileName.slice(0, 160);
  const digest = createHash('sha256').update(bytes).digest();
  return unitOfWork(context, async ({ database }) => ({
    id: await keepSourceProfile(database, { digest, name, content: bytes }, context.now()),
    name,
  }));
}

/** The space of a job's values by the id of its source profile. */
export async function inkSource(
  context: Context,
  id: number,
): Promise<InkSource & { readonly content: Uint8Array }> {
  return context.cache.keep('source profile', MOST_KEPT, context.database, id, async () => {
    const row = await findSourceProfile(context.database, id);
    if (row === undefined) throw notFound(`source profile ${id}`);
    return { name: row.name, content: row.content, profile: unwrap(readIcc(row.content)) };
  });
}
