import { createAimSetFromFile } from '@melto/services/conformity/aimSets';
import { Problem } from '@melto/services/kernel/problem';
import { idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

const MOST_BYTES = 32_000_000;

export function POST(request: Request): Promise<Response> {
  return respondOnce(request, async () => {
    const query = new URL(request.url).searchParams;
    const name = (query.get('name') ?? '').trim().slice(0, 120);
    const versionOf = query.get('versionOf');
    if (name === '') throw new Problem('bad-input', 'The aim set has no name.', 'Give it one.', 'name');
    const bytes = new Uint8Array(await request.arrayBuffer());
    if (bytes.length > MOST_BYTES)
      throw new Problem('too-large', 'The file is larger than 32 MB.', 'Take a smaller one.', 'file');
    return createAimSetFromFile(
      services(),
      { name, versionOf: versionOf === null ? undefined : idOf(versionOf) },
      (query.get('file') ?? 'file').slice(0, 120),
      bytes,
    );
  });
}
