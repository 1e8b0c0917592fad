import { createPressChart } from '@melto/services/calibration/pressCharts';
import { bodyOf, idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

type Context = { params: Promise<{ id: string }> };

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () =>
    createPressChart(services(), idOf(id), await bodyOf(request, 'newPressChart')),
  );
}
