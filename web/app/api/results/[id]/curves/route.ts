import { CURVE_FORMATS, exportCurves } from '@melto/services/calibration/curveExport';
import { Problem } from '@melto/services/kernel/problem';
import { download, idOf } from '@/server/respond';
import { services } from '@/server/services';

export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  const query = new URL(request.url).searchParams;
  return download(async () => {
    const format = CURVE_FORMATS.find((known) => known === (query.get('format') ?? 'csv'));
    if (format === undefined)
      throw new Problem(
        'bad-input',
        'There is no such format.',
        `Ask for ${CURVE_FORMATS.join(', ')}.`,
        'format',
      );
    const channels = (query.get('channels') ?? '').split('').filter((channel) => channel !== ',');
    return exportCurves(services(), idOf(id), format, Number(query.get('points') ?? 256), channels);
  });
}
