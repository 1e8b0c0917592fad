import { fileText } from '@melto/services/kernel/fileText';
import { readColours } from '@melto/services/lists/colourLists';
import { READ_COLOURS } from '@/endpoints/lists';
import { workingOut } from '@/server/route';

// Names and colours only: what takes colours of a list asks no spectra.
export const POST = workingOut(READ_COLOURS, async ({ context, body }) => ({
  colours: (await readColours(context, fileText(body))).map(({ name, lab }) => ({ name, lab })),
}));
