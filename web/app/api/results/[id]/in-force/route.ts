import { putInForce } from '@melto/services/ledger/versions';
import { idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function PUT(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () => putInForce(services(), idOf(id)));
}
