import { publicReport, reportFormat } from '@melto/services/conformity/checkReports';
import { download } from '@/server/respond';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

/** A report behind a public, read-only link. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ code: string }> },
): Promise<Response> {
  const { code } = await params;
  return download(
    async () => publicReport(services(), code, reportFormat(new URL(request.url).searchParams.get('format'))),
    true,
  );
}
