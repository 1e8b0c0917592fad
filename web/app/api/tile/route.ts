import { calibrateTile } from '@melto/services/reading/desk';
import { respondOnce } from '@/server/respond';
import { services } from '@/server/services';

/** Calibrates the instrument that the sheet `?sheet=` is read with, the first one without it. */
export async function POST(request: Request): Promise<Response> {
  const sheet = new URL(request.url).searchParams.get('sheet') ?? undefined;
  return respondOnce(request, async () => calibrateTile(services(), sheet));
}
