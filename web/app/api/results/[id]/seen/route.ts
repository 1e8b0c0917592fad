import { seenCheck } from '@melto/services/conformity/seenCheck';
import { idOf, respond } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  const query = new URL(request.url).searchParams;
  return respond(() =>
    seenCheck(services(), idOf(id), query.get('illuminant') ?? 'D50', query.get('observer') ?? '2'),
  );
}
