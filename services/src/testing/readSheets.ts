import { calibrateTile, deskState } from '../reading/desk.ts';
import { readStrip } from '../reading/passes.ts';
import type { TestServices } from './testServices.ts';

/** Reads all strips of sheets with a steady hand. @returns the reading, and the check that it was judged by. */
export async function readSheets(
  services: TestServices,
  sheets: readonly string[],
  mode: 'M0' | 'M1' = 'M1',
): Promise<{ readonly readingId: number; readonly resultId: number | null }> {
  let last = { readingId: 0, resultId: null as number | null };
  for (const code of sheets) {
    await calibrateTile(services, code);
    for (const { strip } of (await deskState(services, code)).strips) {
      const answer = await readStrip(services, code, { attempt: `${code} ${strip} ${mode}`, strip, mode });
      if (!answer.ok) throw new Error(answer.words);
      last = { readingId: answer.readingId, resultId: answer.resultId };
    }
  }
  return last;
}
