import { markStrip } from '@melto/services/reading/desk';
import { bodyOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(
  request: Request,
  { params }: { params: Promise<{ code: string }> },
): Promise<Response> {
  const { code } = await params;
  return respondOnce(request, async () => {
    const { strip, marked } = await bodyOf(request, 'mark');
    return { marked: await markStrip(services(), code, strip, marked) };
  });
}
