import { channelCount } from '@melto/core/device/process';
import { matchPatches } from '@melto/core/measured/matchPatches';
import type { PatchMatch } from '@melto/core/measured/matchPatches';
import type { Answers, MeasuredMode, Measurement, Question } from '@melto/core/measured/measurement';
import { issueText } from '@melto/core/result';
import type { PrintRow } from '@melto/store/prints';
import type { LoadedChart } from '../charts/chart.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { deskData } from './deskData.ts';

/** A file of measurements beside the print it was given for. */
export interface MeasuredFile {
  readonly print: PrintRow;
  readonly chart: LoadedChart;
  readonly condition: ConditionRow;
  readonly measurement: Measurement;
  /** For each mode of the file, which rows are which patches. */
  readonly modes: readonly (MeasuredMode & { readonly match: PatchMatch })[];
}

/** Reads a file of measurements and finds its patches on the chart of a sheet; stores nothing. */
export async function measuredFile(
  context: Context,
  code: string,
  file: Uint8Array | string,
  answers: Answers,
): Promise<MeasuredFile> {
  const { print, chart, condition } = await deskData(context, code);
  const found = await understood(context, { print, chart, condition }, file, answers);
  return { print, chart, condition, ...found };
}

/** What a file holds, or a refusal that says what is wrong with it. */
export async function readableFile(
  { readUpload }: Context,
  file: Uint8Array | string,
  answers: Answers,
): Promise<Measurement> {
  const read = await readUpload({ kind: 'measurement', file, answers });
  if (read.ok) return read.value;
  throw new Problem(
    'bad-input',
    `The file cannot be used: ${read.issues.map(issueText).join('; ')}.`,
    'Nothing was stored. Mend the file and give it again.',
  );
}

const QUESTION_WORDS: Readonly<Record<Question['asks'], string>> = {
  mode: 'The file does not tell its measurement mode.',
  light: 'The file does not tell the illuminant and the observer of its colours.',
  scale: 'The file does not tell what its device values count to.',
  table: 'The file holds several tables that could be meant.',
};

/** A question that has to be answered before anything is stored. */
export function unanswered({ asks }: Question): Problem {
  return new Problem(
    'bad-input',
    QUESTION_WORDS[asks],
    'Nothing was stored. Answer it and give the file again.',
    asks,
  );
}

type Printed = Pick<MeasuredFile, 'print' | 'chart' | 'condition'>;

async function understood(
  context: Context,
  printed: Printed,
  file: Uint8Array | string,
  answers: Answers,
): Promise<Pick<MeasuredFile, 'measurement' | 'modes'>> {
  const measurement = await readableFile(context, file, answers);
  const scale = measurement.questions.find(({ asks }) => asks === 'scale');
  if (scale?.asks === 'scale') {
    if (scale.channels !== channelCount(printed.condition.process))
      throw otherProcess(printed, scale.process);
    // The chart itself may answer: on the right scale its values are those that were asked for.
    const fits: (typeof scale.options)[number][] = [];
    for (const option of scale.options) {
      const other = await context.readUpload({
        ...{ kind: 'measurement', file },
        answers: { ...answers, scale: option },
      });
      if (!other.ok) continue;
      const matches = other.value.modes.map((mode) => matchOf(printed, mode));
      if (matches.every((match) => match !== undefined && match.foreign.length === 0)) fits.push(option);
    }
    if (fits.length === 1) return understood(context, printed, file, { ...answers, scale: fits[0] });
    // Nobody can answer what neither value explains.
    if (fits.length === 0) throw foreignValues(printed);
    return { measurement, modes: [] };
  }
  return {
    measurement,
    modes: measurement.modes.map((mode) => {
      const match = matchOf(printed, mode);
      if (match === undefined) throw unmatched(printed, mode);
      const rows = mode.set.ids.length;
      if (2 * match.foreign.length > rows) throw mostlyForeign(printed, rows - match.foreign.length, rows);
      return { ...mode, match };
    }),
  };
}

function matchOf({ print, chart, condition }: Printed, mode: MeasuredMode): PatchMatch | undefined {
  const { ids, device } = chart.set;
  return matchPatches(
    { process: condition.process, ids, asked: device, sent: print.deviceValues, layout: chart.layout },
    mode,
  );
}

function unmatched(printed: Printed, { set }: MeasuredMode): Problem {
  const { process } = printed.condition;
  if (set.process !== undefined && channelCount(set.process) !== channelCount(process))
    return otherProcess(printed, set.process.name);
  if (set.process !== undefined) return foreignValues(printed);
  return new Problem(
    'bad-input',
    'The file has no device values, and neither its ids nor places nor order tell which patch is which.',
    'Nothing was stored. Export the measurement with device values, or with the ids of the chart.',
  );
}

function otherProcess({ condition }: Printed, name: string): Problem {
  return new Problem(
    'bad-input',
    `The file gives ${name} values, the sheet was printed with ${condition.process.name}.`,
    'Nothing was stored. Give the file that was measured from this chart.',
  );
}

/** Another chart has a few colours in common with any: paper, solids. */
function mostlyForeign({ chart }: Printed, own: number, rows: number): Problem {
  return new Problem(
    'bad-input',
    `Only ${own} of the file’s ${rows} rows are patches of this chart (${chart.title}).`,
    'Nothing was stored. Give the file that was measured from this chart, or take the other rows out.',
  );
}

function foreignValues({ chart }: Printed): Problem {
  return new Problem(
    'bad-input',
    `No device values of the file are those of this chart (${chart.title}).`,
    'Nothing was stored. Give the file that was measured from this chart.',
  );
}
