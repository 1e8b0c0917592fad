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
    if (measured === null) await readOne(context, code, strip, 'M1');
  }
}

/** Reads all of a sheet once more, without ultraviolet. */
export async function readWithoutUv(context: Context, code: string): Promise<void> {
  for (const { strip } of (await deskState(context, code)).strips) await readOne(context, code, strip, 'M2');
}

async function readOne(context: Context, code: string, strip: number, mode: 'M1' | 'M2'): Promise<void> {
  const attempt = `sample ${code} ${strip}${mode === 'M1' ? '' : ` ${mode}`}`;
  await unitOfWork(context, async (inner) => {
    const answer = await readStrip(inner, code, { attempt, strip, mode, hand: 'steady' });
    if (!answer.ok) throw new Error(`strip ${strip} of ${code}: ${answer.words}`);
    if (answer.complete) await judgeNow(inner, answer.readingId);
  });
}
