import { aimSets, createAimSetByHand, createAimSetFromReading } from '@melto/services/conformity/aimSets';
import { Problem } from '@melto/services/kernel/problem';
import { bodyOf, respond, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export function GET(): Promise<Response> {
  return respond(() => aimSets(services()));
}

export function POST(request: Request): Promise<Response> {
  return respondOnce(request, async () => {
    const { readingId, rows, conditions, ...input } = await bodyOf(request, 'aimSet');
    if (readingId !== undefined) return createAimSetFromReading(services(), input, readingId);
    if (rows !== undefined) return createAimSetByHand(services(), input, rows, conditions ?? {});
    throw new Problem('bad-input', 'There are no aims.', 'Give a reading or rows.', 'rows');
  });
}
