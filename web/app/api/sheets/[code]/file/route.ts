import { printFile } from '@melto/services/charts/printing';
import { Problem } from '@melto/services/kernel/problem';
import { download } from '@/server/respond';
import { services } from '@/server/services';

export async function GET(
  request: Request,
  { params }: { params: Promise<{ code: string }> },
): Promise<Response> {
  const { code } = await params;
  const query = new URL(request.url).searchParams;
  const format = query.get('format') ?? 'pdf';
  return download(async () => {
    if (format === 'pdf' || format === 'tiff' || format === 'png')
      return printFile(services(), code, format, query.get('asked') === '1');
    throw new Problem(
      'bad-input',
      `There is no format "${format.slice(0, 20)}".`,
      'Ask for pdf, tiff or png.',
      'format',
    );
  });
}
