import { cancelJob } from '@melto/services/kernel/jobs';
import { idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () => cancelJob(services(), idOf(id)));
}
