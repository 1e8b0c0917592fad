import { unitOfWork } from '@melto/services/kernel/context';
import type { Context } from '@melto/services/kernel/context';
import { judgeNow } from '@melto/services/judging/judge';
import { deskState } from '@melto/services/reading/desk';
import { readStrip } from '@melto/services/simulated/simulatedHand';

/**
 * Reads the strips of a sheet that are not read yet, up to a certain one. A complete reading is judged with its last
 * strip: a runner would judge it by its own clock, and this story happened long ago.
 */
export async function readSheet(context: Context, code: string, most = Infinity): Promise<void> {
  const desk = await deskState(context, code);
  for (const { strip, measured } of desk.strips) {
    if (strip > most) return;
    if (measured !== null) continue;
    const attempt = `sample ${code} ${strip}`;
    await unitOfWork(context, async (inner) => {
      const answer = await readStrip(inner, code, { attempt, strip, mode: 'M1', hand: 'steady' });
      if (!answer.ok) throw new Error(`strip ${strip} of ${code}: ${answer.words}`);
      if (answer.complete) await judgeNow(inner, answer.readingId);
    });
  }
}
