import { judgeReadingOf } from '@melto/services/conformity/checks';
import { bodyOf, idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () => {
    const { readingId, ...choice } = await bodyOf(request, 'check');
    return judgeReadingOf(services(), idOf(id), readingId, choice);
  });
}
