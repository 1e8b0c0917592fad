import { judgeNow } from '../judging/judge.ts';
import { deskState } from '../reading/desk.ts';
import type { TestServices } from './testServices.ts';
import { calibrateTile, readStrip } from '../simulated/simulatedHand.ts';

/**
 * Reads all strips of sheets with a steady hand, and has what is complete judged as a runner would.
 * @returns the reading, and the check that it was judged by.
 */
export async function readSheets(
  context: TestServices,
  sheets: readonly string[],
  mode: 'M0' | 'M1' | 'M2' = 'M1',
): Promise<{ readonly readingId: number; readonly resultId: number | null }> {
  let last = { readingId: 0, resultId: null as number | null };
  for (const code of sheets) {
    await calibrateTile(context, code);
    for (const { strip } of (await deskState(context, code)).strips) {
      const answer = await readStrip(context, code, { attempt: `${code} ${strip} ${mode}`, strip, mode });
      if (!answer.ok) throw new Error(answer.words);
      const judged = answer.complete ? await judgeNow(context, answer.readingId) : undefined;
      if (judged?.state === 'failed') throw new Error(judged.problem ?? 'not judged');
      last = { readingId: answer.readingId, resultId: judged?.resultId ?? null };
    }
  }
  return last;
}
