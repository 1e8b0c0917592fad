import type { Context } from '@melto/services/kernel/context';
import { judgedSoon } from '@melto/services/reading/judgeRequest';

/** A runner judges what was completed; whoever stands at the desk waits for it this long, then is told later. */
const MOST_WAIT_MS = 20_000;

/** Adds to an answer what the completed reading was judged to be, once that is known. */
export async function judged<T extends { readonly readingId: number }>(
  context: Context,
  answer: T,
): Promise<T & { readonly resultId: number | null; readonly judgeProblem: string | null }> {
  const { resultId, problem } = await judgedSoon(context, answer.readingId, MOST_WAIT_MS);
  return { ...answer, resultId, judgeProblem: problem };
}
