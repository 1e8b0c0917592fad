import { runAdvice } from '@melto/core/press/runAdvice';
import type { RunAdvice } from '@melto/core/press/runAdvice';
import { barText } from '@melto/core/press/barText';
import { barPatchWords, designBar, patchesOf } from '@melto/core/press/colourBar';
import { barVerdict, judgedFigure, packFigures, patchMeasures } from '@melto/core/press/barVerdict';
import { mean } from '@melto/core/numerics/statistics';
import { labAt } from '@melto/core/colour/labAt';
import type { ColourBar } from '@melto/core/press/colourBar';
import type { PatchMeasure } from '@melto/core/press/barVerdict';
import { countSheets, factsOf, listMoves } from '@melto/store/pressRuns';
import type { MoveRow, RunRow, RunWithPlan } from '@melto/store/pressRuns';
import { listSheetValues } from '@melto/store/pressSheets';
import type { SheetRow, SheetWithValues } from '@melto/store/pressSheets';
import type { Context } from '../kernel/context.ts';
import { runOf } from './runs.ts';
import { watchAtThePress } from './runWatch.ts';
import type { RunWatch } from './runWatch.ts';

/** Sheets that the advice rests on, and that are shown as strips. */
const ADVISED = 24;

/** A sheet as a thin strip: how many patches of each zone are outside. */
export interface StripView extends SheetRow {
  readonly zonesOutside: readonly number[];
}

/** A patch of the newest sheet, as the sheet is drawn. */
export interface PatchView {
  readonly zone: number;
  readonly kind: string;
  readonly words: string;
  /** For D50 and 2°; null where it is still to come, or only its density is known. */
  readonly lab: readonly number[] | null;
  readonly density: number | null;
  readonly quantity: PatchMeasure['quantity'] | null;
  readonly value: number | null;
  readonly limit: number | null;
  readonly outside: boolean;
}

export interface UnitView {
  readonly unit: number;
  readonly ink: string;
  readonly word: RunAdvice['lines'][number]['advice']['word'];
  readonly changes: readonly number[];
  readonly outside: readonly number[];
  readonly unreachable: readonly number[];
  /** Impression from which a sheet tells what the last move did. */
  readonly from: number;
  readonly sheets: number;
  readonly zones: readonly {
    readonly density: number | null;
    readonly deltaE: number | null;
    readonly bestDensity: number | null;
    readonly bestDeltaE: number | null;
  }[];
  readonly worst: number;
  readonly tolerance: number;
  /** Lab for D50 and 2° that the ink's solid is to have; null where there is no aim. */
  readonly lab: readonly number[] | null;
}

export interface RunView extends RunRow {
  readonly settings: RunWithPlan['settings'];
  readonly units: RunWithPlan['plan']['units'];
  readonly bar: {
    readonly zones: number;
    readonly zoneMm: number;
    readonly patchMm: number;
    readonly patches: number;
    /** What it is described by, where it is none that Melto would make; else null. */
    readonly described: string | null;
  };
  readonly simulated: boolean;
  /** Whether its aims are known as spectra, and so under any light. */
  readonly aimsInLights: boolean;
  readonly lines: readonly UnitView[];
  readonly patches: readonly PatchView[];
  readonly spread: number | null;
  /** Print contrast of the 75 % tints of the newest sheet, in per cent, by unit; null where it was not read. */
  readonly contrast: readonly (number | null)[];
  readonly beyond: readonly string[];
  readonly strips: readonly StripView[];
  readonly moves: readonly MoveRow[];
  /** What the watch of its condition says; null without a watch. */
  readonly watch: RunWatch | null;
}

/** A run as it stands: its newest sheet and what to do. */
export async function runView(context: Context, id: number): Promise<RunView> {
  const run = await runOf(context, id);
  const { database } = context;
  const sheets = await listSheetValues(database, id, ADVISED);
  const moves = await listMoves(database, id);
  const { plan: whole, settings, simulated } = run;
  const plan = { ...whole, settings };
  const advice = runAdvice(plan, sheets, moves);
  const measures = patchMeasures(plan.bar, plan.units, settings);
  return {
    ...factsOf(run),
    ...(await countSheets(database, id)),
    settings,
    simulated: simulated !== null && context.press !== undefined,
    units: plan.units,
    aimsInLights: plan.aims.spectra !== undefined,
    bar: { ...plan.bar, patches: plan.bar.patches.length, described: describedBar(plan) },
    lines: advice.lines.map((line) => unitView(run, line)),
    patches: patchViews(run, measures, advice),
    spread: finite(advice.figures?.spread ?? NaN),
    contrast: plan.units.map((_, unit) => contrastOf(plan.bar, advice, unit)),
    beyond: advice.beyond.map(({ words }) => words),
    strips: sheets.map((sheet) => stripOf(plan.bar, measures, sheet)),
    moves,
    watch: await watchAtThePress(context, run),
  };
}

/** The text of a bar, where it is none that Melto would make of its shape. */
function describedBar({ bar, units }: RunWithPlan['plan']): string | null {
  const made = designBar(units, bar);
  return made.ok && JSON.stringify(made.value) === JSON.stringify(bar) ? null : barText(bar, units);
}

/** Mean print contrast of a unit over the sheet. */
function contrastOf(bar: ColourBar, { figures }: RunAdvice, unit: number): number | null {
  const own = patchesOf(bar, 'tint', unit).flatMap((at) => {
    const contrast = figures?.contrast[at] ?? NaN;
    return Number.isFinite(contrast) ? [100 * contrast] : [];
  });
  return own.length === 0 ? null : mean(own);
}

const finite = (value: number): number | null => (Number.isFinite(value) ? value : null);

type Measures = ReturnType<typeof patchMeasures>;

/** A sheet by the figures that it was judged by when it was read. */
function stripOf(
  bar: ColourBar,
  measures: Measures,
  { reading: _reading, figures, ...row }: SheetWithValues,
): StripView {
  const zonesOutside = new Array<number>(bar.zones).fill(0);
  for (const patch of barVerdict(measures, figures).outside) zonesOutside[bar.patches[patch].zone]++;
  return { ...row, zonesOutside };
}

function unitView(
  { plan: { units, bar, aims } }: RunWithPlan,
  { unit, advice, zones, worst, tolerance }: RunAdvice['lines'][number],
): UnitView {
  const lab = labAt(aims.lab, patchesOf(bar, 'solid', unit)[0]);
  const { word, changes, outside, unreachable, from, sheets } = advice;
  return {
    ...{ unit, word, outside, unreachable, from, sheets, worst, tolerance },
    ...{ ink: units[unit].ink, changes: [...changes] },
    zones: zones.map(({ density, deltaE, bestDensity, bestDeltaE }) => ({
      density: finite(density),
      deltaE: finite(deltaE),
      bestDensity: finite(bestDensity),
      bestDeltaE: finite(bestDeltaE),
    })),
    lab: lab.every(Number.isFinite) ? lab : null,
  };
}

function patchViews(
  { plan: { units, bar } }: RunWithPlan,
  measures: Measures,
  { figures, lab }: RunAdvice,
): PatchView[] {
  const packed = figures && packFigures(figures);
  const outside = new Set(packed && barVerdict(measures, packed).outside);
  return bar.patches.map((patch, at) => {
    const own = lab === undefined ? [] : [...lab.subarray(3 * at, 3 * at + 3)];
    const measure = measures[at];
    const value = measure === undefined || packed === undefined ? NaN : judgedFigure(measure, packed, at);
    return {
      ...{ zone: patch.zone, kind: patch.kind, words: barPatchWords(units, patch) },
      lab: own.length === 3 && own.every(Number.isFinite) ? own : null,
      density: finite(figures?.density[at] ?? NaN),
      quantity: measure?.quantity ?? null,
      value: finite(value),
      limit: measure?.limit ?? null,
      outside: outside.has(at),
    };
  });
}
