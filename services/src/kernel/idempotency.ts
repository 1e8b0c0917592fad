import { reserveKey, storeAnswer } from '@melto/store/idempotency';
import type { RequestKey } from '@melto/store/idempotency';
import { unitOfWork } from './context.ts';
import type { Context } from './context.ts';
import { Problem } from './problem.ts';

const MOST_KEY = 80;

/**
 * Makes a change once for each key of a route, house and person: the key, the change and its answer are kept together
 * or not at all. A repeated request gets the first answer again, also where both come at once; what was refused leaves
 * no trace and can be sent again.
 */
export async function once<T>(
  context: Context,
  request: { readonly route: string; readonly key: string | null },
  work: (inner: Context) => Promise<T>,
): Promise<T> {
  const { route, key } = request;
  if (key === null) return unitOfWork(context, work);
  if (!/^[\x21-\x7e]+$/.test(key) || key.length > MOST_KEY)
    throw new Problem(
      'bad-input',
      'The idempotency key is no key.',
      `Send 1 to ${MOST_KEY} printable characters of ASCII, new for each change.`,
    );
  const asked: RequestKey = { route, key };
  return unitOfWork(context, async (inner) => {
    const before = await reserveKey(inner.database, asked, context.now());
    if (before !== undefined) return JSON.parse(before) as T;
    const answer = await work(inner);
    await storeAnswer(inner.database, asked, JSON.stringify(answer ?? {}));
    return answer;
  });
}
