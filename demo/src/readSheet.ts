import type { Services } from '@melto/services/kernel/context';
import { deskState } from '@melto/services/reading/desk';
import { readStrip } from '@melto/services/reading/passes';

/** Reads the strips of a sheet that are not read yet, up to a certain one. */
export async function readSheet(services: Services, code: string, most = Infinity): Promise<void> {
  const desk = await deskState(services, code);
  for (const strip of desk.strips) {
    if (strip.strip > most) return;
    if (strip.measured !== null) continue;
    const answer = await readStrip(services, code, {
      attempt: `sample ${code} ${strip.strip}`,
      strip: strip.strip,
      mode: 'M1',
      hand: 'steady',
    });
    if (!answer.ok) throw new Error(`strip ${strip.strip} of ${code}: ${answer.words}`);
  }
}
