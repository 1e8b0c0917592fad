import { resultFile } from '@melto/services/ledger/versions';
import { Problem } from '@melto/services/kernel/problem';
import { download, idOf } from '@/server/respond';
import { services } from '@/server/services';

export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  const role = new URL(request.url).searchParams.get('role') ?? 'profile';
  return download(async () => {
    if (role === 'profile') return resultFile(services(), idOf(id), role);
    throw new Problem('bad-input', `There is no role "${role.slice(0, 20)}".`, 'Ask for profile.', 'role');
  });
}
