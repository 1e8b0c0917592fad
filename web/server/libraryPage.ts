import { notFound } from 'next/navigation';
import { Problem } from '@melto/services/kernel/problem';

/** `?set=` is the latest version of a set, `&version=` an earlier one of it. */
export interface LibraryQuery {
  readonly set?: string;
  readonly version?: string;
}

/** The set that a page of the library shows: what the address asks for, else the first of the list. */
export async function chosenVersion<T>(
  { set, version }: LibraryQuery,
  sets: readonly { readonly id: number }[],
  load: (id: number) => Promise<T>,
): Promise<T> {
  const asked = Number(version ?? set);
  try {
    const id = Number.isInteger(asked) && asked > 0 ? asked : sets[0]?.id;
    if (id === undefined) notFound();
    return await load(id);
  } catch (error) {
    if (error instanceof Problem && error.type === 'not-found') notFound();
    throw error;
  }
}
