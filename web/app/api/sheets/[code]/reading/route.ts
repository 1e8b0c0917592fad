import { importReading } from '@melto/services/reading/importReading';
import { Problem } from '@melto/services/kernel/problem';
import { respondOnce } from '@/server/respond';
import { services } from '@/server/services';

const MOST_BYTES = 16_000_000;

export async function POST(
  request: Request,
  { params }: { params: Promise<{ code: string }> },
): Promise<Response> {
  const { code } = await params;
  return respondOnce(request, async () => {
    const declared = Number(request.headers.get('content-length') ?? 0);
    if (declared > MOST_BYTES)
      throw new Problem(
        'too-large',
        'The file is larger than 16 MB.',
        'Drop the CGATS file of this chart alone.',
      );
    return importReading(services(), code, await request.text());
  });
}
