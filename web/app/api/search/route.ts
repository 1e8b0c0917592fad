import { search } from '@melto/services/overview/search';
import { respond } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  const words = new URL(request.url).searchParams.get('q') ?? '';
  return respond(() => search(services(), words.slice(0, 200)));
}
