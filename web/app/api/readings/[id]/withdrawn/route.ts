import { withdrawReading } from '@melto/services/reading/readings';
import { bodyOf, idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function PUT(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () =>
    withdrawReading(services(), idOf(id), (await bodyOf(request, 'withdrawn')).withdrawn),
  );
}
