import { checkReport, reportFormat } from '@melto/services/conformity/checkReports';
import { download, idOf } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return download(
    async () =>
      checkReport(services(), idOf(id), reportFormat(new URL(request.url).searchParams.get('format'))),
    true,
  );
}
