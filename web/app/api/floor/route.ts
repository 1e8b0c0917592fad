import { floor } from '@melto/services/overview/floor';
import { respond } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export async function GET(): Promise<Response> {
  return respond(() => floor(services()));
}
