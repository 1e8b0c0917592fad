import { labAt } from '../colour/labAt.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { barFigures, paperOf } from './barFigures.ts';
import type { BarAims, BarFigures } from './barFigures.ts';
import type { BarReading } from './barReading.ts';
import { bestDensity } from './bestDensity.ts';
import { beyondDensity } from './beyondDensity.ts';
import type { Beyond } from './beyondDensity.ts';
import { patchesOf } from './colourBar.ts';
import type { ColourBar } from './colourBar.ts';
import { nextMove, USUAL_MOVES } from './nextMove.ts';
import type { UnitAdvice, UnitMove, ZoneAim } from './nextMove.ts';
import { FILTERS } from './pressUnit.ts';
import type { PressUnit } from './pressUnit.ts';
import { labInLight, readingInLight } from './runLight.ts';
import { differenceOf, solidTolerance } from './runSettings.ts';
import type { RunSettings } from './runSettings.ts';
import { settledNoise } from './settledNoise.ts';
import { labOfLight, learnLine, lightOf } from './solidLight.ts';

/** What does not change in a run. */
export interface RunPlan {
  readonly units: readonly PressUnit[];
  readonly bar: ColourBar;
  readonly aims: BarAims;
  readonly settings: RunSettings;
}

export interface RunSheet {
  readonly impression: number;
  readonly reading: BarReading;
}

export interface RunMove extends UnitMove {
  readonly unit: number;
}

/** One zone of a unit on the newest sheet that has it. */
export interface ZoneState {
  /** Density from the white base; NaN where the solid was never read. */
  readonly density: number;
  readonly deltaE: number;
  /** Best density and what it brings. */
  readonly bestDensity: number;
  readonly bestDeltaE: number;
}

export interface UnitLine {
  readonly unit: number;
  readonly advice: UnitAdvice;
  readonly zones: readonly ZoneState[];
  /** Worst difference of its zones now, and what the move is to bring it to. */
  readonly worst: number;
  readonly tolerance: number;
}

export interface RunAdvice {
  /** Units by the effect of their move, greatest first; those left alone in the order of printing. */
  readonly lines: readonly UnitLine[];
  readonly figures: BarFigures | undefined;
  /** Lab of the newest sheet for D50 and 2°, as it is shown: row-major patch × 3. */
  readonly lab: Float64Array | undefined;
  readonly beyond: readonly Beyond[];
}

/** Densities that are counted from nothing, by filter. */
const NO_BASE = FILTERS.map(() => 0);
/** Solids of this many sheets tell how an ink changes with its thickness. */
const LEARN_FROM = 8;
/** A reading is never quieter than this in density. */
const LEAST_NOISE = 0.006;

/**
 * What to do at the press now. @param sheets in the order of impressions, each as far as it was read; @param moves that
 * were made, in their order.
 */
export function runAdvice(plan: RunPlan, sheets: readonly RunSheet[], moves: readonly RunMove[]): RunAdvice {
  const { units, bar, aims, settings } = plan;
  const newest = sheets.at(-1);
  // Without its paper a sheet tells no density over it: counted from another base it would look like a jump.
  const bases = sheets.map(({ reading }) =>
    settings.white === 'paper' ? paperOf(bar, reading).density : NO_BASE,
  );
  const grid = newest?.reading.grid;
  const wanted = labInLight(aims, settings);
  const ground: Ground = { plan, sheets, bases, wanted, grid, labOf: labOfLight(grid, settings) };
  const lines = units.map((_, unit) =>
    unitLine(
      ground,
      moves.filter((move) => move.unit === unit),
      unit,
    ),
  );
  if (newest === undefined) return { lines, figures: undefined, lab: undefined, beyond: [] };
  const figures = barFigures(bar, units, newest.reading, aims, settings);
  const solids = lines.map(({ zones, advice }) => ({
    best: Math.max(...zones.map(({ bestDeltaE }) => (Number.isFinite(bestDeltaE) ? bestDeltaE : 0))),
    unreachable: settings.guide === 'colour' && advice.unreachable.length > 0,
  }));
  const beyond = beyondDensity(
    ...([bar, units, figures, wanted] as const),
    ...([readingInLight(newest.reading, settings), solids, settings.tolerances] as const),
  );
  const effect = ({ advice }: UnitLine): number =>
    advice.word === 'move' ? Math.max(...advice.changes.map((change) => Math.abs(change))) : 0;
  return {
    ...{ figures, beyond, lab: measuredLabRows(newest.reading.xyz) },
    lines: [...lines].sort((a, b) => effect(b) - effect(a) || a.unit - b.unit),
  };
}

/** What is the same for all units. */
interface Ground {
  readonly plan: RunPlan;
  readonly sheets: readonly RunSheet[];
  /** By sheet and filter, what densities are counted from. */
  readonly bases: readonly (readonly number[])[];
  /** Lab of the aims in the run's light. */
  readonly wanted: Float64Array;
  /** Of the newest sheet. */
  readonly grid: SpectralGrid | undefined;
  readonly labOf: ReturnType<typeof labOfLight>;
}

function unitLine(
  { plan: { units, bar, settings }, sheets, bases, wanted: wantedLab, grid, labOf }: Ground,
  moves: readonly RunMove[],
  unit: number,
): UnitLine {
  const { ink, filter } = units[unit];
  const channel = FILTERS.indexOf(filter);
  const places = zonePlaces(bar, unit);
  const tolerance =
    settings.guide === 'density' ? settings.tolerances.density : solidTolerance(settings, units[unit]);
  const densities = sheets.map(({ impression, reading }, sheet) => ({
    impression,
    density: Float64Array.from(
      places,
      (patch) => reading.density[4 * patch + channel] - bases[sheet][channel],
    ),
  }));
  const noise = settledNoise(densities, moves, settings.settle, {
    usual: USUAL_MOVES.noise,
    least: LEAST_NOISE,
  });
  const learnt = learnLine(bar, sheets.slice(-LEARN_FROM), places, channel);
  const zones: ZoneState[] = [];
  const zoneAims: ZoneAim[] = [];
  const wanted = settings.densities[ink];
  places.forEach((patch, zone) => {
    const at = newestWith(densities, zone);
    const density = at < 0 ? NaN : densities[at].density[zone];
    const aim = labAt(wantedLab, patch);
    // An older sheet of another kind of light is not mixed with what the newest taught.
    const alike = at >= 0 && sheets[at].reading.grid?.count === grid?.count;
    const light = alike ? lightOf(sheets[at].reading, patch, channel) : undefined;
    const best =
      light === undefined || learnt === undefined || labOf === undefined || !Number.isFinite(aim[0])
        ? undefined
        : bestDensity(
            learnt,
            labOf,
            light.light,
            aim,
            differenceOf[settings.formula],
            solidTolerance(settings, units[unit]),
          );
    zones.push({
      density,
      deltaE: best?.now ?? NaN,
      bestDensity: density + (best?.change ?? NaN),
      bestDeltaE: best?.best ?? NaN,
    });
    if (settings.guide === 'density')
      zoneAims.push(
        wanted === undefined ? STAY : { best: wanted, within: [wanted - tolerance, wanted + tolerance] },
      );
    else
      zoneAims.push(
        best === undefined
          ? STAY
          : {
              best: density + best.change,
              within: best.within && [density + best.within[0], density + best.within[1]],
            },
      );
  });
  const advice = nextMove(densities, moves, zoneAims, { ...USUAL_MOVES, settle: settings.settle, noise });
  const off = zones.map(({ density, deltaE }) =>
    settings.guide === 'density' ? Math.abs(density - (wanted ?? NaN)) : deltaE,
  );
  return {
    unit,
    advice,
    zones,
    worst: Math.max(...off.filter((value) => Number.isFinite(value)), 0),
    tolerance,
  };
}

/** The newest sheet on which a zone was read; -1 where none is. */
function newestWith(sheets: readonly { readonly density: Float64Array }[], zone: number): number {
  let at = sheets.length - 1;
  while (at >= 0 && !Number.isFinite(sheets[at].density[zone])) at--;
  return at;
}

/** A zone of which nothing is asked. */
const STAY: ZoneAim = { best: NaN, within: [-Infinity, Infinity] };

/** The patch of a unit's solid in each zone. */
function zonePlaces(bar: ColourBar, unit: number): number[] {
  const solids = patchesOf(bar, 'solid', unit);
  return Array.from(
    { length: bar.zones },
    (_, zone) => solids.find((at) => bar.patches[at].zone === zone) ?? -1,
  );
}
