import { advanceClock } from '../simulated/advanceClock.ts';
import type { JudgedBy } from '../conformity/checkChoice.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../house/newCondition.ts';
import { aimSets } from '../conformity/aimSets.ts';
import { toleranceSets } from '../conformity/toleranceSets.ts';
import { printWedge } from '../wedges/printWedge.ts';
import type { WedgeInput } from '../wedges/printWedge.ts';
import { named } from './named.ts';
import { readSheets } from './readSheets.ts';
import type { TestServices } from './testServices.ts';

/** All points of the settings record that a print wants ticked. */
export const TICKS = DEFAULT_POINTS.filter(({ tickAtPrint }) => tickAtPrint).map(({ label }) => label);
export const HOUR = 3_600_000;
export const DAY = 24 * HOUR;

/** Makes the condition of the Heron on a stock. */
export async function heronOn(context: TestServices, stock: string): Promise<number> {
  const heron = named((await conditionChoices(context)).devices, 'Heron');
  const { id } = await createCondition(context, {
    deviceId: heron.id,
    stockId: named(heron.stocks, stock).id,
    inkSet: heron.inkSet,
    mode: 'standard',
    points: DEFAULT_POINTS,
  });
  return id;
}

/** The first aim set and tolerance set of the house, to judge the press itself. */
export async function byDeviceValues(context: TestServices): Promise<JudgedBy> {
  const [aims] = await aimSets(context);
  const [tolerances] = await toleranceSets(context);
  return {
    aimSetId: aims?.id ?? 0,
    toleranceSetId: tolerances?.id ?? 0,
    substrateCorrected: false,
    through: 'device values',
  };
}

/** Prints a wedge, lets it rest and reads it. */
export async function readWedge(
  context: TestServices,
  conditionId: number,
  kind: WedgeInput['kind'],
  judgedBy?: JudgedBy,
  mode: 'M0' | 'M1' = 'M1',
): Promise<{ readonly readingId: number; readonly resultId: number | null }> {
  const { sheets } = await printWedge(
    context,
    conditionId,
    { kind, paper: 'a4', reader: 'strip', judgedBy },
    { ticks: TICKS },
  );
  await advanceClock(context, 3 * HOUR);
  return readSheets(context, sheets, mode);
}
