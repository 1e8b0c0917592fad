import { barFromText } from '@melto/core/press/barText';
import { designBar } from '@melto/core/press/colourBar';
import { pressAims } from '@melto/core/press/pressAims';
import type { SpotAims } from '@melto/core/press/pressAims';
import { FILTERS, isProcessUnit, MOST_UNITS, processUnit } from '@melto/core/press/pressUnit';
import type { PressUnit } from '@melto/core/press/pressUnit';
import type { RunPlan } from '@melto/core/press/runAdvice';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { issueText } from '@melto/core/result';
import type { Issue } from '@melto/core/result';
import { PROCESS_INKS } from '@melto/core/tone/toneMeasure';
import type { Lab } from '@melto/core/colour/lab';
import { loadAims } from '../conformity/aimSets.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { colourListOf } from '../lists/colourLists.ts';

export interface PlanInput {
  readonly aimSetId: number;
  /** Inks in the order of printing: C, M, Y, K, or the name of a colour of the list. */
  readonly inks: readonly string[];
  readonly listId?: number;
  /** Ink zones of a bar that Melto makes; one that is described has them itself. */
  readonly zones: number;
  /** A bar that is on the sheet already, see `barFromText`; one is made where none is told. */
  readonly bar?: string;
  readonly zoneMm: number;
  readonly patchMm: number;
}

/** What a run is printed with and judged by, from what was asked. */
export async function planOf(context: Context, input: PlanInput): Promise<Omit<RunPlan, 'settings'>> {
  const { inks } = input;
  if (inks.length === 0 || inks.length > MOST_UNITS)
    throw new Problem('bad-input', `A press has 1 to ${MOST_UNITS} units.`, 'Name the ink of each.', 'inks');
  const twice = inks.find((ink, at) => inks.indexOf(ink) !== at);
  if (twice !== undefined)
    throw new Problem('bad-input', `${twice} stands in two units.`, 'Name each ink once.', 'inks');
  const { spots, tolerance } = await spotAims(context, input);
  const units = inks.map((ink) => unitOfInk(ink, spots, tolerance));
  const designed = input.bar === undefined ? designBar(units, input) : barFromText(input.bar, units, input);
  if (!designed.ok) throw refused(designed.issues);
  const { aims } = await loadAims(context, input.aimSetId);
  return { units, bar: designed.value, aims: pressAims(designed.value, units, aims, spots) };
}

export function refused(issues: readonly Issue[]): Problem {
  const [first] = issues;
  return new Problem(
    'bad-input',
    issueText(first),
    'Put it right, then try again. Nothing was stored.',
    first.path,
  );
}

async function spotAims(
  context: Context,
  { inks, listId }: PlanInput,
): Promise<{ readonly spots: SpotAims; readonly tolerance: number | null }> {
  const spots = inks.filter((ink) => !PROCESS_INKS.includes(ink));
  if (spots.length === 0) return { spots: {}, tolerance: null };
  if (listId === undefined)
    throw new Problem(
      'bad-input',
      `${spots.join(', ')}: of no colour list.`,
      'Choose the list that its aims are taken from.',
      'listId',
    );
  const { colours, tolerance } = await colourListOf(context, listId);
  const aims = Object.fromEntries(
    spots.map((ink) => {
      const found = colours.find(({ name }) => name === ink);
      if (found === undefined)
        throw new Problem('bad-input', `${ink} is not in this list.`, 'Choose a colour of it.', 'inks');
      return [ink, found.lab];
    }),
  );
  return { spots: aims, tolerance };
}

function unitOfInk(ink: string, spots: SpotAims, tolerance: number | null): PressUnit {
  return isProcessUnit({ ink })
    ? processUnit(ink as 'C' | 'M' | 'Y' | 'K')
    : { ink, filter: filterOf(spots[ink]), ...(tolerance === null ? {} : { tolerance }) };
}

/** The filter that sees the least of a colour. */
function filterOf(lab: Lab): PressUnit['filter'] {
  const xyz = labToXyz(lab, WHITE_D50_MEASURED);
  const shares = xyz.map((value, axis) => value / WHITE_D50_MEASURED[axis]);
  const least = shares.indexOf(Math.min(...shares));
  // Greys are told best by all light.
  return Math.hypot(lab[1], lab[2]) < 8 ? 'visual' : FILTERS[least];
}
