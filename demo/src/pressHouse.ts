import { unitOfWork } from '@melto/services/kernel/context';
import { createRandom } from '@melto/core/numerics/random';
import { makeBalance } from '@melto/services/calibration/balance';
import { borrowCalibration } from '@melto/services/calibration/borrowing';
import { createChart } from '@melto/services/profile/profilingChart';
import { conditionNamed, conditionOf } from '@melto/services/ledger/conditions';
import { DEFAULT_POINTS } from '@melto/services/house/newCondition';
import type { Context } from '@melto/services/kernel/context';
import { makeCurves } from '@melto/services/calibration/curves';
import { correctEvenness } from '@melto/services/calibration/evenness';
import { editLimits, proposeLimits } from '@melto/services/calibration/limits';
import { createPressChart } from '@melto/services/calibration/pressCharts';
import type { PressChartKind } from '@melto/services/calibration/pressCharts';
import { printChart } from '@melto/services/charts/printChart';
import { sheetsOf } from '@melto/services/charts/rack';
import type { PrintInput } from '@melto/services/charts/printChart';
import { buildProfile } from '@melto/services/profile/buildProfile';
import { versionsOf } from '@melto/services/ledger/versions';
import { readingsOf } from '@melto/services/reading/readingView';
import { WHOLE } from './sampleSize.ts';
import type { SampleSize } from './sampleSize.ts';
import { conditionFor } from './conditionFor.ts';
import { readSheet, readWithoutUv } from './readSheet.ts';
import { calibrateTile } from '@melto/services/simulated/simulatedHand';

const DAY_MS = 86_400_000;
const HOUR_DAYS = 1 / 24;
const TICKS = DEFAULT_POINTS.filter(({ tickAtPrint }) => tickAtPrint).map(({ label }) => label);

/** One thing that is done on a press, in the order of the work. */
type Step =
  | {
      readonly does: 'sheet';
      readonly kind: PressChartKind | 'profile';
      readonly print?: Partial<PrintInput>;
      readonly rests?: true;
    }
  | { readonly does: 'evenness' | 'limits' | 'curves' | 'balance' | 'profile' };

interface PressStory {
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  readonly daysAgo: number;
  readonly seed: number;
  readonly steps: readonly Step[];
  /** Borrows the calibration of the same device on this stock. */
  readonly borrows?: string;
  /** Told of the whole house only: six inks take their time. */
  readonly whole?: true;
}

const PROFILE_PATCHES = 600;
/** The chart that each result is made from. */
const CHARTS = {
  evenness: 'evenness',
  limits: 'ramps',
  curves: 'ramps',
  balance: 'near-neutral',
  profile: 'profile',
} as const;

const through = { curves: 'in force' } as const;

/** The presses of Saltmarsh Works: one in a known state, one that borrows from it, one on its way, one spoilt. */
const STORIES: readonly PressStory[] = [
  {
    device: 'Heron',
    stock: 'Lantern Gloss 150',
    mode: 'standard',
    daysAgo: 130,
    seed: 71,
    steps: [
      { does: 'sheet', kind: 'evenness' },
      { does: 'evenness' },
      { does: 'sheet', kind: 'evenness' },
      { does: 'sheet', kind: 'ramps' },
      { does: 'limits' },
      { does: 'curves' },
      { does: 'sheet', kind: 'ramps', print: through },
      { does: 'curves' },
      { does: 'sheet', kind: 'ramps', print: through },
      { does: 'sheet', kind: 'near-neutral', print: through },
      { does: 'balance' },
      { does: 'sheet', kind: 'near-neutral', print: through },
      { does: 'sheet', kind: 'profile', print: through },
      { does: 'profile' },
    ],
  },
  {
    device: 'Heron',
    stock: 'Marsh Silk 130',
    mode: 'standard',
    daysAgo: 62,
    seed: 73,
    steps: [],
    borrows: 'Lantern Gloss 150',
  },
  {
    device: 'Osprey',
    stock: 'Fenland Smooth 120',
    mode: '175 lpi',
    daysAgo: 1,
    seed: 79,
    steps: [
      { does: 'sheet', kind: 'ramps' },
      { does: 'limits' },
      { does: 'curves' },
      { does: 'sheet', kind: 'ramps', print: through },
    ],
  },
  {
    device: 'Heron',
    stock: 'Fenland Smooth 120',
    mode: 'standard',
    daysAgo: 0.4,
    seed: 83,
    steps: [{ does: 'sheet', kind: 'ramps', print: { conversion: 'coated to press' } }],
  },
  {
    device: 'Tern',
    stock: 'Quay Proof 200',
    mode: 'fine',
    daysAgo: 9,
    seed: 89,
    whole: true,
    steps: [
      { does: 'sheet', kind: 'ramps' },
      { does: 'limits' },
      { does: 'curves' },
      { does: 'sheet', kind: 'ramps', print: through },
      { does: 'sheet', kind: 'profile', print: through },
      { does: 'profile' },
    ],
  },
];

/** Loads the presses through the use cases of the interface; a step that was done before is not done again. */
export async function loadPressHouse(
  context: Context,
  size: SampleSize,
  onProgress: (fraction: number, words: string) => void,
): Promise<void> {
  const stories = STORIES.filter(({ whole }) => whole === undefined || size === WHOLE);
  for (const [index, story] of stories.entries()) {
    const words = `Sample house: ${story.device}, ${story.stock}`;
    onProgress(index / stories.length, words);
    await tell(context, story, size, (share) => onProgress((index + share) / stories.length, words));
  }
}

async function tell(
  context: Context,
  story: PressStory,
  size: SampleSize,
  onShare: (share: number) => void,
): Promise<void> {
  const random = createRandom(story.seed);
  const at = (hours: number): Context => ({
    ...context,
    now: () => context.now() - Math.max(0, story.daysAgo - hours * HOUR_DAYS) * DAY_MS,
    seed: () => 1 + random.below(2 ** 31 - 2),
  });
  const id = await conditionFor(at(0), story, DEFAULT_POINTS);
  if (story.borrows !== undefined) {
    const lender = await conditionNamed(context, { ...story, stock: story.borrows });
    if (lender !== undefined && (await versionsOf(context, id, 'curves')).length === 0)
      await borrowCalibration(at(0), id, lender);
  }
  const done = { sheet: 0, evenness: 0, limits: 0, curves: 0, balance: 0, profile: 0 };
  for (const [index, step] of story.steps.entries()) {
    // Five hours a step: prints rest before they are read.
    const hours = 5 * index;
    done[step.does]++;
    if (step.does === 'sheet') await sheet(at, hours, id, step, done.sheet, size);
    else if ((await versionsOf(context, id, step.does)).length < done[step.does])
      await result(at(hours + 3), id, step.does, size);
    onShare((index + 1) / story.steps.length);
  }
}

async function sheet(
  at: (hours: number) => Context,
  hours: number,
  conditionId: number,
  step: Extract<Step, { does: 'sheet' }>,
  number: number,
  { patches }: SampleSize,
): Promise<void> {
  const printing = at(hours);
  const codes = new Set(
    (await sheetsOf(printing, conditionId)).rows.map(({ code }) => code.replace(/-\d+$/, '')),
  );
  if (codes.size < number) {
    const { id } =
      step.kind === 'profile'
        ? await createChart(printing, conditionId, {
            patches: Math.min(PROFILE_PATCHES, patches),
            paper: 'a4',
          })
        : await createPressChart(printing, conditionId, {
            kind: step.kind,
            paper: 'a4',
            reader: 'strip',
            steps: 21,
            copies: step.kind === 'ramps' ? 4 : 2,
            order: 'scrambled',
          });
    await printChart(printing, id, { ticks: TICKS, ...step.print });
  }
  const reading = at(hours + 2.5);
  await calibrateTile(reading);
  const open = (await sheetsOf(reading, conditionId)).rows.filter(({ onRack }) => onRack);
  for (const { code } of open.sort((a, b) => a.code.localeCompare(b.code))) await readSheet(reading, code);
  // The house wants to know what its bright paper does in other lights.
  if (step.kind === 'profile') await readProfileDark(reading, conditionId);
}

async function readProfileDark(context: Context, conditionId: number): Promise<void> {
  const own = (await readingsOf(context, conditionId)).rows.filter(({ purpose }) => purpose === 'profile');
  const [lit] = own.filter(({ mode, finishedMs }) => mode === 'M1' && finishedMs !== null);
  if (lit === undefined || own.some(({ mode, finishedMs }) => mode === 'M2' && finishedMs !== null)) return;
  for (const { code } of (await sheetsOf(context, conditionId)).rows)
    if (code.startsWith(lit.code)) await readWithoutUv(context, code);
}

async function result(
  context: Context,
  conditionId: number,
  link: Exclude<Step['does'], 'sheet'>,
  { tableSize }: SampleSize,
): Promise<void> {
  const chart = CHARTS[link];
  const [newest] = (await readingsOf(context, conditionId)).rows.filter(
    ({ purpose, finishedMs, mode }) => purpose === chart && finishedMs !== null && mode === 'M1',
  );
  switch (link) {
    case 'evenness':
      await correctEvenness(context, conditionId, newest.id);
      return;
    case 'limits':
      await proposeLimits(context, conditionId, newest.id);
      // The house keeps full tones and lets the total decide.
      await editLimits(context, conditionId, {
        limits: (await conditionOf(context, conditionId)).process.channels.map(() => 1),
        total: 3,
      });
      return;
    case 'curves':
      await makeCurves(context, conditionId, { readingId: newest.id, measure: 'sctv' });
      return;
    case 'balance':
      await makeBalance(context, conditionId, newest.id);
      return;
    case 'profile': {
      const store = await buildProfile(
        context,
        {
          conditionId,
          choices: {
            readingId: newest.id,
            version: 4,
            tableSize,
            namePattern: '{device}_{stock}_{mode}_{date}',
            separation: { black: 'medium', totalInk: 3 },
          },
        },
        () => {},
      );
      await unitOfWork(context, store);
    }
  }
}
