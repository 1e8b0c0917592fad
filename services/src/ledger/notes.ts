import { setResultNote } from '@melto/store/results';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { resultRow } from './storedResult.ts';

/** Keeps a note with a version, in place of the one it had; what was measured and judged stays as it is. */
export async function noteResult(context: Context, id: number, note: string): Promise<void> {
  await unitOfWork(context, async (inner) => {
    await resultRow(inner, id);
    await setResultNote(inner.database, id, note.trim());
  });
}
