import { PICTURE_VALUES } from '@/endpoints/proof';
import { send } from '@/ui/api';

/** Has a picture's values read by the server, no larger than asked; nothing is stored there. */
export async function readPicture(file: File, side: number) {
  const { values, icc, ...read } = await send(PICTURE_VALUES, { query: { side }, body: file });
  return { ...read, values: bytesOf(values), icc: icc === null ? undefined : bytesOf(icc) };
}

function bytesOf(base64: string): Uint8Array {
  const text = atob(base64);
  const out = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) out[i] = text.charCodeAt(i);
  return out;
}
