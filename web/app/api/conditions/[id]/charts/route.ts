import { requestChart } from '@melto/services/profile/chartJobs';
import { bodyOf, idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () =>
    requestChart(services(), idOf(id), await bodyOf(request, 'newChart')),
  );
}
