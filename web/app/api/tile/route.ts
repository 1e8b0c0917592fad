import { calibrateTile } from '@melto/services/desk';
import { respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(request: Request): Promise<Response> {
  return respondOnce(request, async () => calibrateTile(services()));
}
