import { analyseRun, outsideOf } from '@melto/core/press/runAnalysis';
import type { RunAnalysis } from '@melto/core/press/runAnalysis';
import { mean } from '@melto/core/numerics/statistics';
import { barPatchWords, patchesOf } from '@melto/core/press/colourBar';
import { OTHER_VARIATION, variation, VARIATION_LIMITS } from '@melto/core/press/okVariation';
import type { Variation } from '@melto/core/press/okVariation';
import { isUsualLight, lightWords, USUAL_LIGHT } from '@melto/core/press/runLight';
import type { Phase, RunSettings } from '@melto/core/press/runSettings';
import { deltaEAb } from '@melto/core/colour/deltaEAb';
import type { Lab } from '@melto/core/colour/lab';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { factsOf, listSameBarRuns } from '@melto/store/pressRuns';
import type { RunFacts, RunWithPlan } from '@melto/store/pressRuns';
import { findHouse } from '@melto/store/houses';
import {
  findSheet,
  listSheetFigures,
  listProductionColours,
  newestReadMs,
  sheetPages,
} from '@melto/store/pressSheets';
import { pressAims } from '@melto/core/press/pressAims';
import type { Aims } from '@melto/core/conformity/aims';
import { loadAims } from '../conformity/aimSets.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { judgedSheet } from './sheets.ts';
import { runOf } from './runs.ts';
import { parseShifts, shiftAt, shiftWords } from '@melto/core/time/shifts';
import type { Shift } from '@melto/core/time/shifts';
import type { Scope } from '@melto/core/press/scopes';

export interface AnalysisAsked {
  readonly scope: Scope;
  /** Sheets of one phase alone. */
  readonly phase?: Phase;
  /** A moment of the shift that is asked for; that of the run's newest sheet where none is told. */
  readonly atMs?: number;
  /** Aims that the sheets are judged by instead of those that the run had when they were read. */
  readonly aimSetId?: number;
}

export interface VariationRow extends Variation {
  readonly ink: string;
}

export interface AnalysisView extends RunAnalysis {
  readonly run: RunFacts;
  readonly zones: number;
  readonly runs: number;
  /** Runs of the scope that are judged by another formula or under another light: theirs are other figures, left out. */
  readonly otherwise: number;
  /** What colour differences are: their formula, and the light and observer. */
  readonly seen: { readonly formula: string; readonly light: string };
  /** The shift whose sheets these are, and its words; null in the other scopes. */
  readonly shift: (Shift & { readonly words: string }) | null;
  /** Solids against the OK sheet, over the sheets of production; empty without one. */
  readonly variation: readonly VariationRow[];
  /** The aim set that it is judged by; null for the run's own aims. */
  readonly against: { readonly id: number; readonly name: string } | null;
}

const MOST_RUNS = 400;
/** Sheets of production that the variation is told by. */
const MOST_VARIED = 5000;
const MOST_OUTSIDE = 200;
/** Sheets that are judged by other aims while somebody waits. */
const MOST_ANEW = 2000;

/** How a run, all runs of its job or of its press kept to their tolerances. */
export async function runAnalysis(
  context: Context,
  runId: number,
  asked: AnalysisAsked,
): Promise<AnalysisView> {
  const run = await runOf(context, runId);
  const { ids, otherwise } = await runsOf(context, run, asked.scope);
  const shift = asked.scope === 'shift' ? await shiftOf(context, run, asked.atMs) : undefined;
  if (asked.aimSetId !== undefined && !isUsualLight(run.settings))
    throw new Problem(
      'bad-input',
      `Aim sets tell colours for ${lightWords(USUAL_LIGHT)}; this run is judged under ${lightWords(run.settings)}.`,
      'Look at it by its own aims, or set the light of the run back.',
      'aims',
    );
  const against = asked.aimSetId === undefined ? undefined : await loadAims(context, asked.aimSetId);
  const sheets =
    against === undefined
      ? await listSheetFigures(context.database, ids, asked.phase, shift)
      : await judgedAnew(context, run, ids, against.aims, { phase: asked.phase, shift });
  const { units, bar } = run.plan;
  const read = new Set(sheets.map(({ runId }) => runId));
  return {
    ...analyseRun(bar, units, run.settings, sheets),
    ...{ run: factsOf(run), zones: bar.zones, shift: shift ?? null, otherwise },
    seen: { formula: run.settings.formula, light: lightWords(run.settings) },
    runs: shift === undefined ? ids.length : read.size,
    variation: await okVariation(context, run),
    against: against === undefined ? null : { id: against.view.id, name: against.view.name },
  };
}

/** Figures of sheets by other aims than they were read with; spot inks, of which an aim set tells nothing, have none. */
async function judgedAnew(
  { database }: Context,
  run: RunWithPlan,
  ids: readonly number[],
  aims: Aims,
  { phase, shift }: { readonly phase: Phase | undefined; readonly shift: Shift | undefined },
): Promise<{ readonly runId: number; readonly impression: number; readonly figures: Float64Array }[]> {
  const { units, bar } = run.plan;
  const plan = { ...run.plan, aims: pressAims(bar, units, aims, {}) };
  const out = [];
  for (const runId of ids)
    for await (const sheets of sheetPages(database, runId)) {
      for (const sheet of sheets) {
        if (phase !== undefined && sheet.phase !== phase) continue;
        if (shift !== undefined && (sheet.readMs < shift.fromMs || sheet.readMs >= shift.toMs)) continue;
        const { figures } = judgedSheet({ plan, settings: run.settings }, sheet.reading);
        out.push({ runId, impression: sheet.impression, figures });
      }
      if (out.length > MOST_ANEW)
        throw new Problem(
          'bad-input',
          `More than ${MOST_ANEW} sheets are not judged by other aims at once.`,
          'Choose this run, a phase or a shift alone.',
          'aims',
        );
    }
  return out;
}

/** The shift of the house that a moment lies in, or the newest sheet of a run. */
async function shiftOf(
  context: Context,
  run: RunWithPlan,
  atMs: number | undefined,
): Promise<Shift & { readonly words: string }> {
  const house = await findHouse(context.database);
  if (house === undefined) throw new Error(`no house ${context.database.house}`);
  const starts = parseShifts(house.shifts);
  if (!starts.ok) throw new Error(`shifts of house ${house.id}: ${house.shifts}`);
  const ms = atMs ?? (await newestReadMs(context.database, run.id)) ?? run.madeMs;
  const shift = shiftAt(ms, house.timeZone, starts.value);
  return { ...shift, words: shiftWords(shift, house.timeZone) };
}

/** Runs whose figures can be put together with those of this one, and how many of the scope cannot. */
async function runsOf(
  { database }: Context,
  run: RunWithPlan,
  scope: Scope,
): Promise<{ readonly ids: number[]; readonly otherwise: number }> {
  if (scope === 'run') return { ids: [run.id], otherwise: 0 };
  const found = await listSameBarRuns(database, run.id, scope, MOST_RUNS);
  const alike = found.filter(({ settings }) => differenceWords(settings) === differenceWords(run.settings));
  return { ids: alike.map(({ id }) => id), otherwise: found.length - alike.length };
}

/** What a colour difference of a run is. */
const differenceWords = (settings: RunSettings): string => `${settings.formula} ${lightWords(settings)}`;

/** Solids of the sheets of production beside the OK sheet for D50 and 2°, as the standard has it, each ink by the mean over its zones. */
async function okVariation(context: Context, run: RunWithPlan): Promise<VariationRow[]> {
  const { id, okImpression, plan } = run;
  const ok = okImpression === null ? undefined : await findSheet(context.database, id, okImpression);
  if (ok === undefined) return [];
  const sheets = (await listProductionColours(context.database, id, MOST_VARIED)).filter(
    ({ impression }) => impression !== okImpression,
  );
  return plan.units.flatMap(({ ink }, unit) => {
    const places = patchesOf(plan.bar, 'solid', unit);
    const own = places.map((at) => measuredLab(ok.reading.xyz, at));
    const differences = sheets.map(({ xyz }) =>
      mean(places.map((at, zone) => deltaEAb(measuredLab(xyz, at), own[zone])).filter(Number.isFinite)),
    );
    const told = variation(differences, VARIATION_LIMITS[ink] ?? OTHER_VARIATION);
    return told === undefined ? [] : [{ ink, ...told }];
  });
}

const measuredLab = (xyz: Float64Array, patch: number): Lab =>
  xyzToLab([xyz[3 * patch], xyz[3 * patch + 1], xyz[3 * patch + 2]], WHITE_D50_MEASURED);

/** The readings outside of one row and zone of an analysis. */
export async function outsideReadings(
  context: Context,
  runId: number,
  asked: { readonly phase?: Phase; readonly key: string; readonly zone?: number },
): Promise<
  readonly {
    readonly impression: number;
    readonly words: string;
    readonly zone: number;
    readonly value: number;
  }[]
> {
  const { plan, settings } = await runOf(context, runId);
  const sheets = await listSheetFigures(context.database, [runId], asked.phase);
  const { key, zone } = asked;
  return outsideOf(plan.bar, plan.units, settings, sheets, { key, zone }, MOST_OUTSIDE).map(
    ({ impression, patch, value }) => ({
      ...{ impression, value, zone: plan.bar.patches[patch].zone },
      words: barPatchWords(plan.units, plan.bar.patches[patch]),
    }),
  );
}
