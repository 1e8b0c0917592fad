import { printChart } from '@melto/services/charts/printing';
import { bodyOf, idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () => printChart(services(), idOf(id), await bodyOf(request, 'print')));
}
