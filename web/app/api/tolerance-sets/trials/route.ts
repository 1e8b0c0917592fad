import { trialChecks } from '@melto/services/conformity/trialChecks';
import { respond } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export function GET(): Promise<Response> {
  return respond(() => trialChecks(services()));
}
