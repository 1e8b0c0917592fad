import type { Remote } from 'comlink';
import { openPicture } from '@/features/proof/openPicture';
import { SaidError } from '@/ui/api';
import type { ListWorker, ReadPicture } from '@/workers/list.worker';

/** A picture of the page that is ranked. */
export interface PagePicture {
  readonly name: string;
}

/** Pictures of a page at once. */
export const MOST_PICTURES = 24;

/** Whether a file is a picture, by its name. */
export const isPicture = ({ name }: File): boolean => /\.(tiff?|png|jpe?g)$/i.test(name);

/** Opens pictures in the worker; an error says in words which of them cannot be used, and then none is. */
export async function openPage(
  worker: Remote<ListWorker>,
  files: readonly File[],
): Promise<readonly PagePicture[]> {
  if (files.length > MOST_PICTURES)
    throw new SaidError(`${files.length} pictures are more than a page has: give up to ${MOST_PICTURES}.`);
  const read: ReadPicture[] = [];
  for (const file of files) {
    const { file: opened } = await openPicture(file);
    if (opened?.icc === undefined)
      throw new SaidError(
        `${file.name} tells no profile, so its colours are not known. Open it in the soft proof, and say what its values are meant by.`,
      );
    read.push({ name: file.name, values: opened.values, channels: opened.channels, icc: opened.icc });
  }
  const refused = await worker.openPage(read);
  if (refused !== undefined) throw new SaidError(refused);
  return read.map(({ name }) => ({ name }));
}
