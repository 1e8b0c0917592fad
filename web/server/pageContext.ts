import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { mayDo } from '@melto/core/people/role';
import type { Role } from '@melto/core/people/role';
import type { Context } from '@melto/services/kernel/context';
import { isUnclaimed } from '@melto/services/people/signIn';
import { callerOf } from './caller';
import type { Caller } from './caller';
import { context } from './context';

/** Whoever asks for a page; asked once for each request. */
export const pageCaller = cache(async (): Promise<Caller | undefined> => callerOf(await headers()));

/** The context of whoever asks for a page; nobody is led to sign in, and sees nothing of the house before. */
export async function pageContext(least: Role = 'viewer'): Promise<Context> {
  const caller = await pageCaller();
  if (caller === undefined) redirect((await isUnclaimed(context())) ? '/first' : '/sign-in');
  if (!mayDo(caller.role, least)) redirect('/');
  return caller.context;
}
