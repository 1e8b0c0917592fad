import { askFor, learnResponse, respond } from './keyResponse.ts';
import type { KeyResponse, SeenMove } from './keyResponse.ts';

/** What is asked of the density of one unit in one zone. */
export interface ZoneAim {
  /** The density that is wanted: the best one by colour, or the aim where density is the guide. */
  readonly best: number;
  /** Densities between which the tolerance is kept; none where no density keeps it. */
  readonly within: readonly [number, number] | undefined;
}

/** Densities of one unit on one sheet. */
export interface UnitSheet {
  /** Impressions of the run when the sheet was taken. */
  readonly impression: number;
  /** By zone; NaN where the patch was not read. */
  readonly density: ArrayLike<number>;
}

/** A move of one unit's keys that was made. */
export interface UnitMove {
  readonly impression: number;
  /** Change of density that was asked for, by zone. */
  readonly changes: ArrayLike<number>;
}

export interface MoveSettings {
  /** Impressions after which a change of keys has arrived on the sheet. */
  readonly settle: number;
  /** Standard deviation of a density from one settled sheet to the next, instrument included. */
  readonly noise: number;
  /** The least and the greatest change that is asked of a zone at once. */
  readonly least: number;
  readonly greatest: number;
}

export const USUAL_MOVES: MoveSettings = { settle: 150, noise: 0.012, least: 0.015, greatest: 0.3 };

/**
 * `leave` alone, `move` the keys, `wait` for the last move to arrive, or `read`, where not one solid of the unit is known.
 */
export type UnitWord = 'leave' | 'move' | 'wait' | 'read';

export interface UnitAdvice {
  readonly word: UnitWord;
  /** Change of density to ask for, by zone; zero where a zone is left alone. */
  readonly changes: Float64Array;
  /** What the densities are thought to be once all is settled: the mean of the sheets since the last move. */
  readonly density: Float64Array;
  /** Where the densities are thought to go with the move. */
  readonly expected: Float64Array;
  /** Zones outside of what is tolerated, beyond the doubt of the reading. */
  readonly outside: readonly number[];
  /** Zones that no density brings within the tolerance. */
  readonly unreachable: readonly number[];
  /** Sheets since the last move that the densities rest on. */
  readonly sheets: number;
  /** For `wait`: the impression from which a sheet tells what the move did. */
  readonly from: number;
  readonly response: KeyResponse;
}

/** Sheets beyond this are of the past: a press wanders. */
const MOST_SHEETS = 6;
/** So many standard deviations beyond the tolerance a zone is called outside. */
const BEYOND = 0.5;
/** A zone that no density can mend is moved only from this far off its best. */
const OFF_BEST = 2.5;

/**
 * The next move of one unit. Keys answer late, reach their neighbours and not in proportion: what was asked and what came
 * of it in this run tells how. It leaves a press alone that is within tolerance, and where it moves it goes to the best.
 * @param sheets in the order of impressions. @param moves in the order of impressions. @param aims by zone.
 */
export function nextMove(
  sheets: readonly UnitSheet[],
  moves: readonly UnitMove[],
  aims: readonly ZoneAim[],
  settings: MoveSettings = USUAL_MOVES,
): UnitAdvice {
  const zones = aims.length;
  const response = learnResponse(seenMoves(sheets, moves, settings), settings.noise);
  const last = moves.at(-1);
  const from = last === undefined ? 0 : last.impression + settings.settle;
  const settled = sheets.filter(({ impression }) => impression >= from).slice(-MOST_SHEETS);
  const { density, counts } = meanDensities(settled, zones);
  const known = (zone: number): boolean => counts[zone] > 0;
  const doubt = (zone: number): number => settings.noise / Math.sqrt(counts[zone]);
  const outside: number[] = [];
  const unreachable: number[] = [];
  aims.forEach(({ best, within }, zone) => {
    if (!known(zone)) return;
    const off = Math.abs(best - density[zone]);
    if (within === undefined) {
      unreachable.push(zone);
      if (off > OFF_BEST * Math.max(settings.least, doubt(zone))) outside.push(zone);
      return;
    }
    const margin = BEYOND * doubt(zone);
    if ((density[zone] < within[0] - margin || density[zone] > within[1] + margin) && off >= settings.least)
      outside.push(zone);
  });
  const still = new Float64Array(zones);
  const common = { density, outside, unreachable, sheets: settled.length, from, response };
  if (settled.length === 0 || !aims.some((_, zone) => known(zone))) {
    const waits = last !== undefined && sheets.length > 0;
    return { ...common, word: waits ? 'wait' : 'read', changes: still, expected: density };
  }
  if (outside.length === 0) return { ...common, word: 'leave', changes: still, expected: density };
  // Where nothing is asked of a zone it stays as it is.
  const wanted = aims.map(({ best }, zone) =>
    known(zone) && Number.isFinite(best) ? best - density[zone] : 0,
  );
  // A move that is not surely to the right side is not made.
  const changes = askFor(response, wanted, settings.greatest).map((change, zone) =>
    !known(zone) ||
    Math.abs(change) < Math.max(settings.least, 1.5 * doubt(zone)) ||
    change * wanted[zone] <= 0 ||
    Math.abs(wanted[zone]) < doubt(zone)
      ? 0
      : change,
  );
  if (changes.every((change) => change === 0))
    return { ...common, word: 'leave', changes: still, expected: density };
  const effect = respond(response, changes);
  return { ...common, word: 'move', changes, expected: density.map((value, zone) => value + effect[zone]) };
}

/** Mean over sheets by zone, NaN where none has it. */
function meanDensities(
  sheets: readonly UnitSheet[],
  zones: number,
): { readonly density: Float64Array; readonly counts: Int32Array } {
  const density = new Float64Array(zones);
  const counts = new Int32Array(zones);
  for (const sheet of sheets)
    for (let zone = 0; zone < zones; zone++)
      if (Number.isFinite(sheet.density[zone])) {
        density[zone] += sheet.density[zone];
        counts[zone]++;
      }
  return { density: density.map((sum, zone) => (counts[zone] > 0 ? sum / counts[zone] : NaN)), counts };
}

/** What each move was seen to do: the settled sheets before it beside those after it and before the next. */
function seenMoves(
  sheets: readonly UnitSheet[],
  moves: readonly UnitMove[],
  { settle }: MoveSettings,
): SeenMove[] {
  return moves.flatMap(({ impression, changes }, at) => {
    const start = at === 0 ? -Infinity : moves[at - 1].impression + settle;
    const end = at + 1 < moves.length ? moves[at + 1].impression : Infinity;
    const zones = changes.length;
    const before = sheets.filter((sheet) => sheet.impression >= start && sheet.impression <= impression);
    const after = sheets.filter(
      (sheet) => sheet.impression >= impression + settle && sheet.impression <= end,
    );
    if (before.length === 0 || after.length === 0) return [];
    const [was, is] = [before, after].map((some) => meanDensities(some.slice(-MOST_SHEETS), zones).density);
    return [{ asked: changes, seen: is.map((value, zone) => value - was[zone]) }];
  });
}
