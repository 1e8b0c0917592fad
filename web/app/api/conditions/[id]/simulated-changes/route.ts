import { letChange, putRight } from '@melto/services/simulated/simulatedChanges';
import { bodyOf, idOf, respond } from '@/server/respond';
import { services } from '@/server/services';

export async function PUT(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respond(async () => {
    const { kind, ink } = await bodyOf(request, 'change');
    return kind === undefined
      ? putRight(services(), idOf(id))
      : letChange(services(), idOf(id), kind, ink ?? 0);
  });
}
