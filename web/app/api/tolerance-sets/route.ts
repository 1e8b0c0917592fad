import { saveToleranceSet, toleranceSets } from '@melto/services/conformity/toleranceSets';
import { bodyOf, respond, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export function GET(): Promise<Response> {
  return respond(() => toleranceSets(services()));
}

export function POST(request: Request): Promise<Response> {
  return respondOnce(request, async () =>
    saveToleranceSet(services(), await bodyOf(request, 'toleranceSet')),
  );
}
