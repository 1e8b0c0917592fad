import { createCondition } from '@melto/services/ledger/conditions';
import { bodyOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(request: Request): Promise<Response> {
  return respondOnce(request, async () => createCondition(services(), await bodyOf(request, 'newCondition')));
}
