import { readingsToAim } from '@melto/services/conformity/readingsToAim';
import { respond } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export function GET(): Promise<Response> {
  return respond(() => readingsToAim(services()));
}
