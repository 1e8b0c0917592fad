import { printWedge } from '@melto/services/conformity/wedges';
import { bodyOf, idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  return respondOnce(request, async () => {
    const { ticks, conversion, side, frontEnd, ...wedge } = await bodyOf(request, 'wedge');
    return printWedge(services(), idOf(id), wedge, { ticks, conversion, side, frontEnd });
  });
}
