import { reportFormat } from '@melto/services/conformity/checkReports';
import { publicReport } from '@melto/services/overview/publicReport';
import { context } from '@/server/context';
import { fileResponse, problemResponse } from '@/server/respond';

export const dynamic = 'force-dynamic';

/** A report behind a public, read-only link. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ code: string }> },
): Promise<Response> {
  try {
    const { code } = await params;
    const format = reportFormat(new URL(request.url).searchParams.get('format'));
    return fileResponse(await publicReport(context(), code, format), true);
  } catch (error) {
    return problemResponse(error);
  }
}
