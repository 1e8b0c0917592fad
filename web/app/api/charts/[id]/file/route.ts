import { chartReference } from '@melto/services/charts/charts';
import { chartFile } from '@melto/services/charts/printing';
import { Problem } from '@melto/services/kernel/problem';
import { download, idOf } from '@/server/respond';
import { services } from '@/server/services';

export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  const query = new URL(request.url).searchParams;
  const format = query.get('format') ?? 'txt';
  const page = Number(query.get('page') ?? 1);
  return download(async () => {
    if (format === 'txt') return chartReference(services(), idOf(id));
    if (format === 'pdf' || format === 'tiff' || format === 'png')
      return chartFile(services(), idOf(id), format, page);
    throw new Problem(
      'bad-input',
      `There is no format "${format.slice(0, 20)}".`,
      'Ask for txt, pdf, tiff or png.',
      'format',
    );
  });
}
