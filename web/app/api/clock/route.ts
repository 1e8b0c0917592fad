import { advanceClock } from '@melto/services/kernel/clock';
import { bodyOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(request: Request): Promise<Response> {
  return respondOnce(request, async () => ({
    offsetMs: await advanceClock(services(), (await bodyOf(request, 'clock')).byMs),
  }));
}
