import { house } from '@melto/services/house/house';
import { respond } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export async function GET(): Promise<Response> {
  return respond(() => house(services()));
}
