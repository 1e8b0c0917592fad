import { Problem } from '@melto/services/kernel/problem';

/** Reads a body of a limited size; one that goes on is left off where it passes the limit. */
export async function readBody(request: Request, mostBytes: number): Promise<Uint8Array> {
  const tooLarge = (): Problem =>
    new Problem(
      'too-large',
      `The request is larger than ${sizeWords(mostBytes)}.`,
      'Send less at once.',
      'file',
    );
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (;;) {
    const { done, value } = (await reader?.read()) ?? { done: true, value: undefined };
    if (done || value === undefined) break;
    size += value.length;
    if (size > mostBytes) {
      await reader?.cancel();
      throw tooLarge();
    }
    chunks.push(value);
  }
  return Buffer.concat(chunks);
}

function sizeWords(bytes: number): string {
  return bytes < 1e6 ? `${Math.round(bytes / 1000)} kB` : `${Math.round(bytes / 1e6)} MB`;
}
