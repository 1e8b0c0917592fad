import { recentJobs } from '@melto/services/kernel/jobs';
import { Problem } from '@melto/services/kernel/problem';
import { callerOf } from '@/server/caller';
import { context } from '@/server/context';
import { eventStream } from '@/server/eventStream';
import { log } from '@/server/log';
import { problemResponse } from '@/server/respond';

const POLL_MS = 500;
const listeners = new Set<(text: string) => void>();
let timer: ReturnType<typeof setInterval> | undefined;
let last = '';

/** One poll of the job table serves all browsers; it stops with the last of them. */
async function poll(): Promise<void> {
  try {
    const text = JSON.stringify(await recentJobs(context()));
    if (text === last) return;
    last = text;
    for (const listener of listeners) listener(text);
  } catch (error) {
    log.error({ err: error }, 'the stream of jobs');
  }
}

export async function GET(request: Request): Promise<Response> {
  // Not through an endpoint's handler: it stays open. Whoever is told jobs must be somebody all the same.
  if ((await callerOf(request.headers)) === undefined)
    return problemResponse(
      new Problem('unauthenticated', 'Nobody is signed in here.', 'Sign in, and ask again.'),
    );
  return eventStream(request, (tell) => {
    listeners.add(tell);
    if (last !== '') tell(last);
    timer ??= setInterval(() => void poll(), POLL_MS);
    return () => {
      listeners.delete(tell);
      if (listeners.size > 0) return;
      clearInterval(timer);
      timer = undefined;
    };
  });
}
