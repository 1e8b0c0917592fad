import { importCurves } from '@melto/services/calibration/curves';
import { Problem } from '@melto/services/kernel/problem';
import { idOf, respondOnce } from '@/server/respond';
import { services } from '@/server/services';

const MOST_BYTES = 1_000_000;

export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  const { id } = await params;
  const name = new URL(request.url).searchParams.get('name') ?? 'curves.csv';
  return respondOnce(request, async () => {
    const text = await request.text();
    if (text.length > MOST_BYTES)
      throw new Problem('too-large', 'The file is larger than 1 MB.', 'Give a CSV file of curves.');
    return importCurves(services(), idOf(id), name, text);
  });
}
