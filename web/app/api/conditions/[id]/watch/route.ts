import { startWatch } from '@melto/services/watch/watch';
import { watchView } from '@melto/services/watch/watchView';
import { bodyOf, idOf, respond, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

interface Context {
  readonly params: Promise<{ id: string }>;
}

export async function GET(_request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return respond(() => watchView(services(), idOf(id)));
}

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () => {
    const { readingIds, ...schedule } = await bodyOf(request, 'watch');
    return startWatch(services(), idOf(id), schedule, readingIds);
  });
}
