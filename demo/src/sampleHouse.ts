import { unitOfWork } from '@melto/services/kernel/context';
import { createRandom } from '@melto/core/numerics/random';
import { chartsOf } from '@melto/services/charts/chart';
import { createChart } from '@melto/services/profile/profilingChart';
import { DEFAULT_POINTS } from '@melto/services/house/newCondition';
import type { Context } from '@melto/services/kernel/context';
import type { Progress } from '@melto/services/kernel/jobs';
import { printChart } from '@melto/services/charts/printChart';
import { sheetsOf } from '@melto/services/charts/rack';
import type { PrintInput } from '@melto/services/charts/printChart';
import { buildProfile } from '@melto/services/profile/buildProfile';
import { profileInForce } from '@melto/services/ledger/inForce';
import { readingsOf } from '@melto/services/reading/readingView';
import { printShortCheck } from '@melto/services/conformity/shortChecks';
import { conditionFor } from './conditionFor.ts';
import { tellFacts, tellPeople } from './knownFacts.ts';
import { keepHouseColours } from './houseColours.ts';
import { measureLights } from './measuredLights.ts';
import { comparePapers } from './paperTrial.ts';
import { WHOLE } from './sampleSize.ts';
import type { SampleSize } from './sampleSize.ts';
import { loadPressHouse } from './pressHouse.ts';
import { runThePress } from './pressRuns.ts';
import { loadProvenHouse } from './provenHouse.ts';
import { readSheet } from './readSheet.ts';
import { calibrateTile } from '@melto/services/simulated/simulatedHand';

const DAY_MS = 86_400_000;
const TICKS = DEFAULT_POINTS.filter(({ tickAtPrint }) => tickAtPrint).map(({ label }) => label);

/** What is done on one condition of the sample house, and how long ago. */
interface Story {
  readonly stock: string;
  readonly mode: string;
  readonly media: string;
  readonly patches: number;
  readonly daysAgo: number;
  readonly seed: number;
  readonly print?: Partial<PrintInput>;
  readonly upTo: 'resting' | 'partly read' | 'read' | 'profile' | 'checked';
}

const DEVICE = 'Wren';

/** Saltmarsh Works, as far as its inkjet goes: a condition in each state. */
const STORIES: readonly Story[] = [
  {
    stock: 'Quay Proof 200',
    mode: 'fine',
    media: 'semi-matt proofing paper',
    patches: 900,
    daysAgo: 124,
    seed: 11,
    upTo: 'checked',
  },
  {
    stock: 'Chalk Rag 310',
    mode: 'fine',
    media: 'matt cotton paper',
    patches: 600,
    daysAgo: 3,
    seed: 23,
    upTo: 'profile',
  },
  {
    stock: 'Lantern Gloss 150',
    mode: 'fine',
    media: 'glossy paper',
    patches: 400,
    daysAgo: 1,
    seed: 31,
    print: { conversion: 'office perceptual' },
    upTo: 'read',
  },
  {
    stock: 'Lantern Gloss 150',
    mode: 'fast',
    media: 'glossy paper',
    patches: 400,
    daysAgo: 0.2,
    seed: 47,
    upTo: 'partly read',
  },
  {
    stock: 'Quay Proof 200',
    mode: 'fast',
    media: 'semi-matt proofing paper',
    patches: 900,
    daysAgo: 0,
    seed: 53,
    upTo: 'resting',
  },
];

/**
 * Loads the sample house through the same use cases that the interface calls. Each step looks whether it was done
 * before, so that a job that was stopped goes on where it was.
 */
export async function loadSampleHouse(
  context: Context,
  onProgress: Progress,
  size: SampleSize = WHOLE,
): Promise<void> {
  for (const story of STORIES) await conditionOfStory(context, story);
  onProgress(0, 'Sample house: papers compared');
  await comparePapers(context);
  for (const [index, story] of STORIES.entries()) {
    const words = `Sample house: ${story.stock}, ${story.mode}`;
    onProgress((0.6 * index) / STORIES.length, words);
    const sized =
      story.upTo === 'profile' || story.upTo === 'checked'
        ? { ...story, patches: Math.min(story.patches, size.patches) }
        : story;
    await tell(context, sized, size, (share) => onProgress((0.6 * (index + share)) / STORIES.length, words));
  }
  await loadPressHouse(context, size, (fraction, words) => onProgress(0.6 + 0.2 * fraction, words));
  await loadProvenHouse(context, (fraction, words) => onProgress(0.8 + 0.2 * fraction, words));
  await tellFacts(context);
  await tellPeople(context);
  await measureLights(context);
  await keepHouseColours(context);
  await runThePress(context);
  onProgress(1, 'Sample house: ready');
}

/** The condition of a story, made when the story begins. */
function conditionOfStory(context: Context, story: Story): Promise<number> {
  const begun: Context = { ...context, now: () => context.now() - story.daysAgo * DAY_MS };
  const points = DEFAULT_POINTS.map((point) =>
    point.label === 'Media setting' ? { ...point, value: story.media } : point,
  );
  return conditionFor(begun, { ...story, device: DEVICE }, points);
}

async function tell(
  context: Context,
  story: Story,
  { tableSize }: SampleSize,
  onShare: (share: number) => void,
): Promise<void> {
  const random = createRandom(story.seed);
  const then = (agoDays: number): Context => ({
    ...context,
    now: () => context.now() - agoDays * DAY_MS,
    seed: () => 1 + random.below(2 ** 31 - 2),
  });
  const printing = then(story.daysAgo);
  // Prints rest for hours before they are read; a story that is to rest is not read at all.
  const reading = then(Math.max(0, story.daysAgo - 0.15));
  const id = await conditionOfStory(context, story);
  // A paper that was compared with others has the chart of its trial as well.
  const own = `RGB ${story.patches}`;
  const chart =
    (await chartsOf(context, id)).rows.find(({ title }) => title === own)?.id ??
    (await createChart(printing, id, { patches: story.patches, paper: 'a4' })).id;
  const print: PrintInput = { ticks: TICKS, ...story.print };
  if (!(await sheetsOf(context, id)).rows.some(({ title }) => title === own))
    await printChart(printing, chart, print);
  if (story.upTo === 'resting') return;
  onShare(0.1);
  const sheets = (await sheetsOf(context, id)).rows.filter(({ onRack, title }) => onRack && title === own);
  await calibrateTile(reading);
  for (const [i, sheet] of sheets.reverse().entries()) {
    await readSheet(reading, sheet.code, story.upTo === 'partly read' ? 7 : undefined);
    onShare(0.1 + (0.4 * (i + 1)) / sheets.length);
    if (story.upTo === 'partly read') return;
  }
  if (story.upTo === 'read') return;
  if ((await profileInForce(context, id)) === undefined) {
    const [complete] = (await readingsOf(context, id)).rows.filter(
      ({ finishedMs, purpose }) => finishedMs !== null && purpose === 'profile',
    );
    const choices = {
      readingId: complete.id,
      version: 4,
      tableSize,
      namePattern: '{device}_{stock}_{mode}_{date}',
    } as const;
    const store = await buildProfile(reading, { conditionId: id, choices }, (fraction) =>
      onShare(0.5 + 0.35 * fraction),
    );
    await unitOfWork(context, store);
  }
  if (story.upTo === 'profile') return;
  const profile = await profileInForce(context, id);
  if (
    profile === undefined ||
    (await chartsOf(context, id)).rows.some(({ purpose }) => purpose === 'short-check')
  )
    return;
  const check = await printShortCheck(then(story.daysAgo - 1), id, profile.resultId, {
    ticks: TICKS,
    paper: 'a4',
  });
  await calibrateTile(then(story.daysAgo - 1.2));
  await readSheet(then(story.daysAgo - 1.2), check.sheets[0]);
  onShare(1);
}
