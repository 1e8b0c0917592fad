import { removeAimSet } from '@melto/services/conformity/aimSets';
import { bodyOf, idOf, respond } from '@/server/respond';
import { services } from '@/server/services';

export async function PUT(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respond(async () => removeAimSet(services(), idOf(id), (await bodyOf(request, 'removed')).removed));
}
