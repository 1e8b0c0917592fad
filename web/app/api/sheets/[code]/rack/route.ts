import { discardSheet } from '@melto/services/charts/printing';
import { bodyOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function PUT(
  request: Request,
  { params }: { params: Promise<{ code: string }> },
): Promise<Response> {
  const { code } = await params;
  return respondOnce(request, async () =>
    discardSheet(services(), code, (await bodyOf(request, 'onRack')).onRack),
  );
}
