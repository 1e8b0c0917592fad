import { printShortCheck } from '@melto/services/conformity/shortChecks';
import { bodyOf, idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () => {
    const { profileResultId, ...print } = await bodyOf(request, 'shortCheck');
    return printShortCheck(services(), idOf(id), profileResultId, print);
  });
}
