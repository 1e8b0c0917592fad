import { correctEvenness } from '@melto/services/calibration/evenness';
import { bodyOf, idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

type Context = { params: Promise<{ id: string }> };

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () =>
    correctEvenness(services(), idOf(id), (await bodyOf(request, 'reading')).readingId),
  );
}
