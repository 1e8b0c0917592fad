import { shareReport, unshareReport } from '@melto/services/conformity/checkReports';
import { bodyOf, idOf, respond } from '@/server/respond';
import { services } from '@/server/services';

export async function PUT(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respond(async () =>
    (await bodyOf(request, 'shared')).shared
      ? shareReport(services(), idOf(id))
      : unshareReport(services(), idOf(id)),
  );
}
