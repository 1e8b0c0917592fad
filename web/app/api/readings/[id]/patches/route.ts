import { readingPatches } from '@melto/services/reading/readings';
import { idOf, respond } from '@/server/respond';
import { services } from '@/server/services';

export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return respond(() => readingPatches(services(), idOf(id)));
}
