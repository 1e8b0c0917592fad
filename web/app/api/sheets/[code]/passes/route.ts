import { readStrip } from '@melto/services/reading/passes';
import { bodyOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(
  request: Request,
  { params }: { params: Promise<{ code: string }> },
): Promise<Response> {
  const { code } = await params;
  return respondOnce(request, async () => readStrip(services(), code, await bodyOf(request, 'pass')));
}
