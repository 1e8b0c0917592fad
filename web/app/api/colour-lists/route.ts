import { colourList } from '@melto/services/profile/colourLists';
import { Problem } from '@melto/services/kernel/problem';
import { respond } from '@/server/respond';

const MOST_BYTES = 8_000_000;

export async function POST(request: Request): Promise<Response> {
  return respond(async () => {
    const text = await request.text();
    if (text.length > MOST_BYTES)
      throw new Problem('too-large', 'The list is larger than 8 MB.', 'Take fewer colours.');
    return colourList(text);
  });
}
