import { standingOf } from '@melto/services/overview/watchStanding';
import { idOf, respond } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respond(() => standingOf(services(), idOf(id)));
}
