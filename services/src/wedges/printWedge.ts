import { CMYK, drivenByInks } from '@melto/core/device/process';
import { controlWedge, MOST_WEDGE_PATCHES } from '@melto/core/charts/controlWedge';
import type { WedgeKind } from '@melto/core/charts/controlWedge';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { layoutInOrder } from '@melto/core/charts/layoutCopies';
import { eightBit } from '@melto/core/charts/namedPatches';
import type { NamedPatches } from '@melto/core/charts/namedPatches';
import { needsOf } from '@melto/core/charts/chartForm';
import type { ChartForm } from '@melto/core/charts/chartForm';
import { labToScreen } from '@melto/core/colour/srgb';
import { MOST_SPOT_COLOURS } from '@melto/core/conformity/spotColour';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { storeChart } from '../charts/chart.ts';
import type { JudgedBy, SpotPatch } from '../conformity/checkChoice.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { curvesInForce } from '../ledger/inForce.ts';
import { LINKS } from '../ledger/links.ts';
import { Problem } from '../kernel/problem.ts';
import { printChart } from '../charts/printChart.ts';
import type { Printed, PrintInput } from '../charts/printChart.ts';
import { predictedWedge } from './predictedWedge.ts';
import { loadToleranceSet } from '../conformity/toleranceSets.ts';
import { valuesThrough } from './wedgeWay.ts';
import { WEDGE_TITLES } from '../charts/wedgeTitles.ts';

/** A patch of an own wedge. */
export interface OwnPatch {
  readonly name: string;
  /** C, M, Y, K in per cent. */
  readonly device: readonly number[];
}

export interface WedgeInput extends ChartForm {
  readonly kind: WedgeKind | 'own';
  /** Patches of an own wedge. */
  readonly patches?: readonly OwnPatch[];
  /** Spot colours that the profile simulates on the same sheet. */
  readonly spots?: readonly NamedColour[];
  /** What it will be judged by; the choice is made before reading. A watch is judged by its zero reading. */
  readonly judgedBy?: Omit<JudgedBy, 'spots' | 'predicted'>;
  /** Prints of it, each read and judged by itself; one where it is not said. */
  readonly copies?: number;
}

/** A zero reading is the mean of three or more. */
export const MOST_WEDGE_COPIES = 6;

/** Prints a control wedge through the condition's whole chain, or as device values through its curves. */
export async function printWedge(
  context: Context,
  conditionId: number,
  input: WedgeInput,
  print: PrintInput,
): Promise<Printed> {
  const condition = await conditionOf(context, conditionId);
  if (!LINKS.conformity.suits(condition.process))
    throw new Problem(
      'bad-input',
      `Control wedges are for CMYK aims; ${condition.device} prints ${condition.process.name}.`,
      'Print a chart of its own.',
    );
  const process = input.kind === 'own' ? ownWedge(input.patches ?? []) : controlWedge(input.kind);
  const { judgedBy, copies = 1 } = input;
  if (!Number.isInteger(copies) || copies < 1 || copies > MOST_WEDGE_COPIES)
    throw new Problem(
      'bad-input',
      `A wedge is printed 1 to ${MOST_WEDGE_COPIES} times at once.`,
      'Print the others after it.',
      'copies',
    );
  if (judgedBy !== undefined) await loadToleranceSet(context, judgedBy.toleranceSetId);
  if (judgedBy === undefined && input.kind !== 'watch')
    throw new Problem('bad-input', 'A wedge is printed for aims.', 'Choose aims and tolerances.', 'judgedBy');
  const spots = spotPatches(input.spots ?? [], process.names.length);
  const through = await valuesThrough(context, condition, process.device, judgedBy, spots);
  if (spots.length > 0 && (through === undefined || input.kind === 'watch'))
    throw new Problem(
      'bad-input',
      'Spot colours are simulated by the profile.',
      'Print through the profile, or leave them out.',
      'spots',
    );
  const predicted =
    judgedBy === undefined || input.kind === 'watch'
      ? undefined
      : await predictedWedge(context, condition, process.device, judgedBy, through);
  const wedge = withSpots(process, spots);
  const seed = context.seed();
  const { paper, reader, patchSize } = input;
  const form = { paper, reader, patchSize };
  const needs = needsOf(form);
  const layout =
    input.kind === 'watch'
      ? layoutInOrder(wedge.names.length, paper, needs)
      : layoutChart(CMYK, wedge.device, paper, seed, needs);
  const chartId = await storeChart(context, {
    conditionId,
    purpose: 'wedge',
    kind: input.kind,
    title: WEDGE_TITLES[input.kind],
    form,
    seed,
    device: wedge.device,
    names: wedge.names,
    layout,
    process: CMYK,
  });
  const curves =
    drivenByInks(condition.process) && (await curvesInForce(context, conditionId)) !== undefined
      ? 'in force'
      : undefined;
  const kept =
    judgedBy === undefined
      ? undefined
      : {
          ...judgedBy,
          ...(spots.length === 0 ? {} : { spots }),
          ...(predicted === undefined ? {} : { predicted }),
        };
  // All of them or none: a zero reading wants its wedges from one state.
  return unitOfWork(context, async (inner) => {
    const first = await printChart(inner, chartId, { curves, ...print }, through, kept);
    const sheets = [...first.sheets];
    for (let copy = 1; copy < copies; copy++)
      sheets.push(...(await printChart(inner, chartId, { curves, ...print }, through, kept)).sheets);
    return { ...first, sheets };
  });
}

/** Each spot colour is printed so often, and averaged. */
const SPOT_COPIES = 2;

function spotPatches(colours: readonly NamedColour[], first: number): SpotPatch[] {
  if (colours.length > MOST_SPOT_COLOURS)
    throw new Problem(
      'bad-input',
      `${colours.length} spot colours.`,
      `A wedge carries ${MOST_SPOT_COLOURS} at most.`,
      'spots',
    );
  const named = new Set(colours.map(({ name }) => name.trim()));
  if (named.size < colours.length || named.has(''))
    throw new Problem(
      'bad-input',
      'Each spot colour needs a name of its own.',
      'Mend the list and choose it again.',
      'spots',
    );
  return colours.flatMap(({ name, lab }, i) =>
    Array.from({ length: SPOT_COPIES }, (_, copy) => ({
      row: first + SPOT_COPIES * i + copy,
      name: name.trim(),
      lab,
    })),
  );
}

/** The wedge with its spot colours; what they ask of the process inks only serves to lay neighbours apart. */
function withSpots({ device, names }: NamedPatches, spots: readonly SpotPatch[]): NamedPatches {
  return {
    device: Float64Array.from([
      ...device,
      ...spots.flatMap(({ lab }) => [...labToScreen(lab).rgb.map((level) => eightBit(1 - level / 255)), 0]),
    ]),
    names: [...names, ...spots.map(({ name }) => name)],
  };
}

function ownWedge(patches: readonly OwnPatch[]): NamedPatches {
  if (patches.length === 0 || patches.length > MOST_WEDGE_PATCHES)
    throw new Problem(
      'bad-input',
      `An own wedge has 1 to ${MOST_WEDGE_PATCHES} patches.`,
      'Give a line for each: C M Y K in per cent.',
      'patches',
    );
  return {
    device: Float64Array.from(patches.flatMap(({ device }) => device.map((value) => eightBit(value / 100)))),
    names: patches.map(({ name }, i) => name || `patch ${i + 1}`),
  };
}
