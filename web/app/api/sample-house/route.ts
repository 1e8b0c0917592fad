import { requestSampleHouse } from '@melto/services/kernel/jobs';
import { respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(request: Request): Promise<Response> {
  return respondOnce(request, async () => requestSampleHouse(services()));
}
