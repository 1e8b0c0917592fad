import type { Remote } from 'comlink';
import { openToldPicture } from '@/features/proof/openPicture';
import type { ToldPicture } from '@/features/proof/openPicture';
import { SaidError } from '@/ui/api';
import type { ListWorker } from '@/workers/list.worker';

/** A picture of the page that is ranked. */
export interface PagePicture {
  readonly name: string;
}

/** Pictures of a page at once. */
export const MOST_PICTURES = 24;

/** Opens pictures in the worker; an error says in words which of them cannot be used, and then none is. */
export async function openPage(
  worker: Remote<ListWorker>,
  files: readonly File[],
): Promise<readonly PagePicture[]> {
  if (files.length > MOST_PICTURES)
    throw new SaidError(`${files.length} pictures are more than a page has: give up to ${MOST_PICTURES}.`);
  const read: ToldPicture[] = [];
  for (const file of files) read.push(await openToldPicture(file));
  const refused = await worker.openPage(read);
  if (refused !== undefined) throw new SaidError(refused);
  return read.map(({ name }) => ({ name }));
}
