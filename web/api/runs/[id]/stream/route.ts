import { notFound, Problem } from '@melto/services/kernel/problem';
import { runOf } from '@melto/services/press/runs';
import { callerOf } from '@/server/caller';
import { eventStream } from '@/server/eventStream';
import { problemResponse } from '@/server/respond';
import { watchEdition } from '@/server/runEditions';

/** Tells the edition of a run each time that something of it is new. */
export async function GET(
  request: Request,
  { params }: { readonly params: Promise<Record<string, string>> },
): Promise<Response> {
  const caller = await callerOf(request.headers);
  if (caller === undefined)
    return problemResponse(
      new Problem('unauthenticated', 'Nobody is signed in here.', 'Sign in, and ask again.'),
    );
  const id = Number((await params)['id']);
  try {
    if (!Number.isSafeInteger(id) || id < 1) throw notFound('such run');
    await runOf(caller.context, id);
  } catch (error) {
    return problemResponse(error);
  }
  return eventStream(request, (tell) => watchEdition(caller.context, id, tell));
}
