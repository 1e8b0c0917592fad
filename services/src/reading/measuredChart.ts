import { labAt } from '@melto/core/colour/labAt';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { channelCount, CMYK, RGB, sameProcess } from '@melto/core/device/process';
import { doubtfulPatches } from '@melto/core/measured/doubtfulRows';
import type { Answers, Measurement } from '@melto/core/measured/measurement';
import { patchLab } from '@melto/core/measured/patchLab';
import { labToHex } from '@melto/core/colour/srgb';
import { printChart } from '../charts/printChart.ts';
import { storeChart } from '../charts/chart.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { conditionOf, settingsRecord } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { importReading, isSpectral } from './importReading.ts';
import type { ImportedReading, ImportPreview } from './importReading.ts';
import { readableFile, unanswered } from './measuredFile.ts';

const LEAST_PATCHES = 12;
const MOST_PATCHES = 6000;
const FORM = { paper: 'a4' } as const;
const SEED = 1;

/** Says what a file that holds device values and colours together would become as a chart of a condition. */
export async function previewMeasuredChart(
  context: Context,
  conditionId: number,
  file: Uint8Array | string,
  answers: Answers = {},
): Promise<ImportPreview> {
  return previewOf(await conditionOf(context, conditionId), await readableFile(context, file, answers));
}

/** What a file that holds device values and colours together would become, whatever it is of. */
export interface MeasuredElsewhere extends ImportPreview {
  /** Name of the process of its device values. */
  readonly process: string;
}

/** The same where there is no condition yet: the file itself says what its device takes. */
export async function previewMeasuredElsewhere(
  context: Context,
  file: Uint8Array | string,
  answers: Answers = {},
): Promise<MeasuredElsewhere> {
  const measurement = await readableFile(context, file, answers);
  const { questions, modes } = measurement;
  const scale = questions.find(({ asks }) => asks === 'scale');
  const named = scale?.asks === 'scale' ? scale.process : modes[0]?.set.process?.name;
  const process = [RGB, CMYK].find(({ name }) => name === named);
  if (process === undefined)
    throw new Problem(
      'bad-input',
      named === undefined ? 'The file has no device values.' : `The file gives ${named} values.`,
      'Give a file of RGB or CMYK values with their colours.',
    );
  return { ...previewOf({ device: 'its device', process }, measurement), process: process.name };
}

type Target = Pick<ConditionRow, 'device' | 'process'>;

function previewOf(
  target: Target,
  { questions, told, unused, damaged, notes, modes }: Measurement,
): ImportPreview {
  const scale = questions.find(({ asks }) => asks === 'scale');
  if (scale?.asks === 'scale' && scale.channels !== channelCount(target.process))
    throw otherProcess(target, scale.process);
  const spectral = isSpectral({ modes });
  const whole = { code: target.device, questions, told, unused, damaged, notes, spectral };
  // Without their scale device values say nothing yet.
  if (scale !== undefined) return { ...whole, modes: [] };
  const { device, layout } = chartOf(target, modes);
  return {
    ...whole,
    modes: modes.map(({ mode, set }) => {
      const lab = patchLab(set) ?? new Float64Array(0);
      const count = set.ids.length;
      return {
        mode: mode ?? null,
        by: 'device values as asked',
        ...{ patches: count, ofPatches: count, repeated: 0, foreign: 0 },
        strips: layout.pages.flat().length,
        ofStrips: layout.pages.flat().length,
        doubtful: doubtfulPatches(device, channelCount(target.process), lab).map(({ patch, off }) => ({
          id: set.ids[patch],
          off,
        })),
        pages: layout.pages.map((page) => page.map((rows) => rows.map((row) => labToHex(labAt(lab, row))))),
      };
    }),
  };
}

/**
 * Takes a chart that was made, printed and measured elsewhere: its file becomes a chart of the condition, a print of it
 * and a reading for each of its modes.
 * @param ticks points of the settings record that it was printed by, as a person says.
 */
export async function takeMeasuredChart(
  context: Context,
  conditionId: number,
  name: string,
  file: Uint8Array | string,
  ticks: readonly string[],
  answers: Answers = {},
): Promise<ImportedReading> {
  const condition = await conditionOf(context, conditionId);
  const { modes, questions } = await readableFile(context, file, answers);
  const scale = questions.find(({ asks }) => asks === 'scale');
  if (scale !== undefined) throw unanswered(scale);
  const { device, ids, layout } = chartOf(condition, modes);
  return unitOfWork(context, async (inner) => {
    const chart = await storeChart(inner, {
      ...{
        conditionId,
        purpose: 'profile',
        kind: 'first',
        process: condition.process,
        form: FORM,
        seed: SEED,
      },
      ...{ device, names: ids, layout, title: `measured, ${name}`.slice(0, 120) },
    });
    const { sheets } = await printChart(inner, chart, { ticks, before: true });
    return importReading(inner, sheets[0], file, answers);
  });
}

/** Labels of the points that a person ticks at each print of a condition. */
export async function ticksOf(context: Context, conditionId: number): Promise<readonly string[]> {
  const points = await settingsRecord(context, conditionId);
  return points.filter(({ tickAtPrint }) => tickAtPrint).map(({ label }) => label);
}

function otherProcess({ device, process }: Target, name: string): Problem {
  return new Problem(
    'bad-input',
    `The file gives ${name} values, ${device} takes ${process.name}.`,
    'Nothing was stored. Give a file of this device.',
  );
}

/** The chart that a file describes: its patches in the order of its rows, laid out on pages of Melto's own. */
function chartOf(condition: Target, [first]: Measurement['modes']) {
  const { process } = condition;
  const { set } = first;
  const { device } = set;
  if (device === undefined || set.process === undefined)
    throw new Problem(
      'bad-input',
      'The file has no device values.',
      'Give a file that holds device values and colours together, or print a chart of Melto.',
    );
  // Inks that are counted and not named are those of the device, in its order.
  if (channelCount(set.process) !== channelCount(process)) throw otherProcess(condition, set.process.name);
  if (
    !sameProcess(set.process, process) &&
    !set.process.channels.every(({ name: ink }, i) => ink === `ink ${i + 1}`)
  )
    throw otherProcess(condition, set.process.name);
  const count = set.ids.length;
  if (count < LEAST_PATCHES || count > MOST_PATCHES)
    throw new Problem(
      'bad-input',
      `The file has ${count} patches; a chart has ${LEAST_PATCHES} to ${MOST_PATCHES}.`,
      'Nothing was stored. Give a file of a whole chart.',
    );
  return { device, ids: set.ids, layout: layoutChart(process, device, FORM.paper, SEED) };
}
