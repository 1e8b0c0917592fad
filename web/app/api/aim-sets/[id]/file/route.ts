import { aimSetFile } from '@melto/services/conformity/aimSetDetail';
import { download, idOf } from '@/server/respond';
import { services } from '@/server/services';

export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return download(async () => aimSetFile(services(), idOf(id)));
}
