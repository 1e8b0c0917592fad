import { editLimits, proposeLimits } from '@melto/services/calibration/limits';
import { bodyOf, idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

type Context = { params: Promise<{ id: string }> };

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () =>
    proposeLimits(services(), idOf(id), (await bodyOf(request, 'reading')).readingId),
  );
}

export async function PUT(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () => editLimits(services(), idOf(id), await bodyOf(request, 'limits')));
}
