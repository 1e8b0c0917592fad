import { createRandom } from '@melto/core/numerics/random';
import type { SimulatedChange } from '@melto/core/device/printPath';
import { aimSets, sayAimMode } from '@melto/services/conformity/aimSets';
import { createAimSetFromReading } from '@melto/services/conformity/newAimSet';
import type { JudgedBy } from '@melto/services/conformity/checkChoice';
import { chartsOf } from '@melto/services/charts/chart';
import { conditionNamed } from '@melto/services/ledger/conditions';
import { DEFAULT_POINTS } from '@melto/services/house/newCondition';
import type { Context } from '@melto/services/kernel/context';
import { readingsOf } from '@melto/services/reading/readingView';
import { letChange } from '@melto/services/simulated/simulatedChanges';
import { saveToleranceSet, toleranceSets } from '@melto/services/conformity/toleranceSets';
import { startWatch } from '@melto/services/watch/watch';
import { printWedge } from '@melto/services/wedges/printWedge';
import type { WedgeInput } from '@melto/services/wedges/printWedge';
import { WEDGE_TITLES } from '@melto/services/charts/wedgeTitles';
import { readSheet } from './readSheet.ts';
import { calibrateTile } from '@melto/services/simulated/simulatedHand';

const DAY_MS = 86_400_000;
const REST_DAYS = 0.12;
const TICKS = DEFAULT_POINTS.filter(({ tickAtPrint }) => tickAtPrint).map(({ label }) => label);

/** The seed catalogue's own colours, on each proof. */
const SPOT_COLOURS: WedgeInput['spots'] = [
  { name: 'Seed red', lab: [52, 48, 26] },
  { name: 'Tide blue', lab: [42, 0, -30] },
];

/** What is proved and watched on one condition. */
interface ProvenStory {
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  readonly seed: number;
  /** Checks by a control wedge, by days ago; the aims are published ones or the house standard. */
  readonly checks: readonly {
    readonly daysAgo: number;
    readonly aims: string;
    readonly tolerances: string;
    readonly through: JudgedBy['through'];
  }[];
  /** Watch wedges: the first three are the zero reading. */
  readonly watch?: {
    readonly fromDaysAgo: number;
    readonly everyDays: number;
    readonly untilDaysAgo: number;
    readonly change?: Omit<SimulatedChange, 'fromMs'> & { readonly daysAgo: number };
  };
}

const STANDARD = 'Saltmarsh gloss';
const PRODUCTION = 'Saltmarsh production';

const STORIES: readonly ProvenStory[] = [
  {
    // The press whose calibrated state is the house standard; its magenta weakens since some weeks.
    device: 'Heron',
    stock: 'Lantern Gloss 150',
    mode: 'standard',
    seed: 101,
    checks: [
      {
        daysAgo: 124,
        aims: 'FOGRA39L',
        tolerances: 'ISO 12647-8 validation print',
        through: 'device values',
      },
      { daysAgo: 123, aims: STANDARD, tolerances: PRODUCTION, through: 'device values' },
      { daysAgo: 60, aims: STANDARD, tolerances: PRODUCTION, through: 'device values' },
      { daysAgo: 30, aims: STANDARD, tolerances: PRODUCTION, through: 'device values' },
    ],
    watch: {
      fromDaysAgo: 122,
      everyDays: 7,
      untilDaysAgo: 3,
      change: { kind: 'ageing-head', ink: 1, daysAgo: 25 },
    },
  },
  {
    // Borrowed curves, judged as a production print of a published condition that they were not made for.
    device: 'Heron',
    stock: 'Marsh Silk 130',
    mode: 'standard',
    seed: 103,
    checks: [
      {
        daysAgo: 4,
        aims: 'FOGRA39L',
        tolerances: 'ISO 12647-2 production print',
        through: 'device values',
      },
    ],
  },
  {
    // The proofer: a coated condition that its gamut does not reach, then newsprint; a watch that is overdue.
    device: 'Wren',
    stock: 'Quay Proof 200',
    mode: 'fine',
    seed: 107,
    checks: [
      { daysAgo: 90, aims: 'FOGRA39L', tolerances: 'ISO 12647-7 proof', through: 'profile, absolute' },
      { daysAgo: 45, aims: 'TR002', tolerances: 'ISO 12647-7 proof', through: 'profile, absolute' },
      { daysAgo: 16, aims: 'TR002', tolerances: 'ISO 12647-7 proof', through: 'profile, absolute' },
    ],
    watch: { fromDaysAgo: 118, everyDays: 7, untilDaysAgo: 9 },
  },
];

/** What is proved and kept at Saltmarsh Works: checks and watches over four months. What was done before is not done again. */
export async function loadProvenHouse(
  context: Context,
  onProgress: (fraction: number, words: string) => void,
): Promise<void> {
  await houseTolerances(context);
  await sayModes(context);
  for (const [index, story] of STORIES.entries()) {
    const words = `Sample house: four months of ${story.device}, ${story.stock}`;
    onProgress(index / STORIES.length, words);
    await tell(context, story, (share) => onProgress((index + share) / STORIES.length, words));
  }
}

/** The house some days ago. */
function before(context: Context, daysAgo: number): Context {
  return {
    ...context,
    now: () => context.now() - daysAgo * DAY_MS,
  };
}

/** The published aims that the house works with, whose data do not tell their mode: it takes them for M1. */
async function sayModes(context: Context): Promise<void> {
  for (const { id, name, conditions } of await aimSets(context))
    if (['FOGRA39L', 'TR002'].includes(name) && conditions.mode === undefined)
      await sayAimMode(before(context, 160), id, 'M1');
}

async function houseTolerances(context: Context): Promise<void> {
  if ((await toleranceSets(context)).some(({ set }) => set.name === PRODUCTION)) return;
  const draft = {
    name: PRODUCTION,
    source: 'agreed with the seed catalogue',
    substrateUncorrected: false,
    metrics: [
      { group: 'substrate', statistic: 'largest', quantity: 'ΔE00', limit: 1.5 },
      { group: 'solids', statistic: 'largest', quantity: 'ΔE00', limit: 2.5 },
      { group: 'greys', statistic: 'mean', quantity: 'ΔCh', limit: 2 },
      { group: 'all', statistic: 'mean', quantity: 'ΔE00', limit: 2 },
      { group: 'all', statistic: '95th percentile', quantity: 'ΔE00', limit: 4 },
    ],
  } as const;
  const [substrate, ...others] = draft.metrics;
  const wider = { ...draft, metrics: [{ ...substrate, limit: 2.5 }, ...others] };
  const { id } = await saveToleranceSet(before(context, 160), wider);
  await saveToleranceSet(before(context, 130), { ...draft, versionOf: id });
}

async function tell(context: Context, story: ProvenStory, onShare: (share: number) => void): Promise<void> {
  const id = await conditionNamed(context, story);
  if (id === undefined) throw new Error(`the sample house has no ${story.device} with ${story.stock}`);
  const random = createRandom(story.seed);
  const at = (daysAgo: number): Context => ({
    ...before(context, daysAgo),
    seed: () => 1 + random.below(2 ** 31 - 2),
  });
  const events = [
    ...story.checks.map((check) => ({ daysAgo: check.daysAgo, check })),
    ...watchDays(story).map((daysAgo) => ({ daysAgo, check: undefined })),
  ].sort((a, b) => b.daysAgo - a.daysAgo);
  const done = (await chartsOf(context, id)).rows.filter(({ purpose }) => purpose === 'wedge').length;
  const change = story.watch?.change;
  for (const [index, { daysAgo, check }] of events.entries()) {
    onShare(index / events.length);
    if (index < done) continue;
    const before = events[index - 1]?.daysAgo ?? Infinity;
    if (change !== undefined && before > change.daysAgo && daysAgo <= change.daysAgo)
      await letChange(at(change.daysAgo), id, change.kind, change.ink);
    if (check === undefined) await watchCheck(at, id, story, daysAgo);
    else await conformityCheck(at, id, check);
  }
}

function watchDays({ watch }: ProvenStory): number[] {
  if (watch === undefined) return [];
  const { fromDaysAgo, everyDays, untilDaysAgo } = watch;
  // Three sheets on the first day, one by one; then one each time.
  const days = [fromDaysAgo, fromDaysAgo - 0.2, fromDaysAgo - 0.4];
  for (let day = fromDaysAgo - everyDays; day >= untilDaysAgo; day -= everyDays) days.push(day);
  return days;
}

async function conformityCheck(
  at: (daysAgo: number) => Context,
  conditionId: number,
  check: ProvenStory['checks'][number],
): Promise<void> {
  const context = at(check.daysAgo);
  const aims = (await aimSets(context)).find(({ name }) => name === check.aims);
  const tolerances = (await toleranceSets(context)).find(({ set }) => set.name === check.tolerances);
  if (aims === undefined || tolerances === undefined)
    throw new Error(`no ${aims === undefined ? check.aims : check.tolerances}`);
  const judgedBy: JudgedBy = {
    aimSetId: aims.id,
    toleranceSetId: tolerances.id,
    substrateCorrected: false,
    through: check.through,
  };
  const spots = check.through === 'device values' ? undefined : SPOT_COLOURS;
  await wedge(at, conditionId, check.daysAgo, { kind: 'proof', judgedBy, spots });
  const [newest] = (await readingsOf(context, conditionId)).rows;
  // The first check of the calibrated press becomes the standard of the house.
  const known = (await aimSets(context)).some(({ name }) => name === STANDARD);
  if (!known && check.through === 'device values')
    await createAimSetFromReading(at(check.daysAgo - REST_DAYS), { name: STANDARD }, newest.id);
}

async function watchCheck(
  at: (daysAgo: number) => Context,
  conditionId: number,
  story: ProvenStory,
  daysAgo: number,
): Promise<void> {
  const context = at(daysAgo);
  const through = story.checks[0];
  const aims = (await aimSets(context)).find(({ name }) => name === through.aims);
  const tolerances = (await toleranceSets(context)).find(({ set }) => set.name === through.tolerances);
  await wedge(at, conditionId, daysAgo, {
    kind: 'watch',
    // A device that takes RGB needs aims to convert its wedge from.
    judgedBy:
      through.through === 'device values' || aims === undefined || tolerances === undefined
        ? undefined
        : {
            aimSetId: aims.id,
            toleranceSetId: tolerances.id,
            substrateCorrected: false,
            through: through.through,
          },
  });
  const zero = (await readingsOf(context, conditionId)).rows.filter(
    ({ title }) => title === WEDGE_TITLES.watch,
  );
  if (zero.length === 3)
    await startWatch(
      at(daysAgo - REST_DAYS),
      conditionId,
      { everyDays: story.watch?.everyDays ?? 7, expiresDays: 14, meanLimit: 1.5, largestLimit: 3 },
      zero.map(({ id }) => id),
    );
}

async function wedge(
  at: (daysAgo: number) => Context,
  conditionId: number,
  daysAgo: number,
  input: Pick<WedgeInput, 'kind' | 'judgedBy' | 'spots'>,
): Promise<void> {
  const { sheets } = await printWedge(
    at(daysAgo),
    conditionId,
    { ...input, paper: 'a4', reader: 'strip' },
    { ticks: TICKS },
  );
  const reading = at(daysAgo - REST_DAYS);
  await calibrateTile(reading);
  for (const code of sheets) await readSheet(reading, code);
}
