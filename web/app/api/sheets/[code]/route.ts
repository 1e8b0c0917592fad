import { deskState } from '@melto/services/reading/desk';
import { respond } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export async function GET(_: Request, { params }: { params: Promise<{ code: string }> }): Promise<Response> {
  const { code } = await params;
  return respond(() => deskState(services(), code));
}
