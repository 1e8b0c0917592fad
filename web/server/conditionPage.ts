import { notFound } from 'next/navigation';
import type { Role } from '@melto/core/people/role';
import type { Context } from '@melto/services/kernel/context';
import { Problem } from '@melto/services/kernel/problem';
import { pageContext } from './pageContext';

export interface PageParams {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<Record<string, string | undefined>>;
}

/** What is not there is a page that is not there. */
export async function orNotFound<T>(work: Promise<T>): Promise<T> {
  return work.catch((error: unknown) => {
    if (error instanceof Problem && error.type === 'not-found') notFound();
    throw error;
  });
}

/** What a page of a condition shows: one service's view of it, of the version that the address asks for. */
export async function shownPage<T>(
  { params, searchParams }: PageParams,
  view: (context: Context, id: number, version: number) => Promise<T>,
  least: Role = 'viewer',
): Promise<T> {
  const [{ id }, { version }] = await Promise.all([params, searchParams]);
  return orNotFound(view(await pageContext(least), Number(id), Number(version)));
}
