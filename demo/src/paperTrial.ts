import { createRandom } from '@melto/core/numerics/random';
import { conditionChoices } from '@melto/services/house/newCondition';
import { beginPaperTrial, paperTrial, paperTrials, trialPoints } from '@melto/services/house/paperTrials';
import type { Context } from '@melto/services/kernel/context';
import { calibrateTile } from '@melto/services/simulated/simulatedHand';
import { readSheet, readWithoutUv } from './readSheet.ts';

const NAME = 'Gallery editions';
const STOCKS = ['Quay Proof 200', 'Chalk Rag 310', 'Lantern Gloss 150'];
const DAY_MS = 86_400_000;
const PRINTED_DAYS_AGO = 150;

/** Three papers of the inkjet compared by one chart, before anything else was made of them. */
export async function comparePapers(context: Context): Promise<void> {
  const known = (await paperTrials(context)).find(({ name }) => name === NAME);
  const random = createRandom(97);
  const then = (agoDays: number): Context => ({
    ...context,
    now: () => context.now() - agoDays * DAY_MS,
    seed: () => 1 + random.below(2 ** 31 - 2),
  });
  const id = known?.id ?? (await begin(then(PRINTED_DAYS_AGO)));
  const reading = then(PRINTED_DAYS_AGO - 1);
  for (const { code, readingId, darkReadingId } of (await paperTrial(context, id)).prints) {
    if (readingId === null) {
      await calibrateTile(reading);
      await readSheet(reading, `${code}-1`);
    }
    if (darkReadingId === null) await readWithoutUv(reading, `${code}-1`);
  }
}

async function begin(context: Context): Promise<number> {
  const wren = (await conditionChoices(context)).devices.find(({ name }) => name === 'Wren');
  if (wren === undefined) throw new Error('the sample house has no Wren');
  const stockIds = wren.stocks.filter(({ name }) => STOCKS.includes(name)).map((stock) => stock.id);
  const asked = { deviceId: wren.id, inkSet: wren.inkSet, mode: 'fine', stockIds };
  const { id } = await beginPaperTrial(context, {
    ...{ name: NAME, ...asked, patches: 300, paper: 'a3', reader: 'strip' },
    ticks: (await trialPoints(context, asked)).map(({ label }) => label),
  });
  if (id === undefined) throw new Error('the trial of light is there at once');
  return id;
}
