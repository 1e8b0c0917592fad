import { deltaE2000, deltaE2000Rows } from '../colour/deltaE2000.ts';
import { labWeights } from '../colour/labWeights.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { mean } from '../numerics/statistics.ts';
import type { ChainCause, ChainHypothesis } from './chainHypotheses.ts';

/** What a reading says of the way that a job went. */
export interface ChainFinding {
  /** `unknown` where nothing that is known explains the sheet. */
  readonly cause: ChainCause | 'unknown';
  /** In words what the sheet looks like; several where they print alike. */
  readonly says: readonly string[];
  /** Mean ΔE00 between the sheet and the right way. */
  readonly fromRight: number;
  /** Mean ΔE00 between the sheet and what explains it best. */
  readonly fromBest: number;
  /** ΔE00 between the white of the sheet and that of the right way. */
  readonly white: number;
  /** All that was tried, the nearest first, with the mean ΔE00 of each. */
  readonly tried: readonly { readonly cause: ChainCause; readonly says: string; readonly mean: number }[];
}

/** A patch that is this far off says no more than that it is off. */
const FARTHEST = 15;
/**
 * How far a sheet must have gone from the right way towards another one, 0 at the right way and 1 at the other. Prints
 * of one chain differ by as much as some ways do, but hardly ever in their direction.
 */
const TOWARDS = 0.62;
/** Root mean square ΔE between two ways, below which a print does not tell them apart. */
const TOLD_APART = 0.6;
/** Ways within this share of the best cannot be told from it. */
const ALIKE = 1.12;
/** A way explains a sheet where it leaves no more than this on the mean… */
const EXPLAINED = 3;
/** …or no more than this share of what the right way leaves. */
const EXPLAINED_SHARE = 0.35;
/** A sheet that is farther from the right way did not come by it. */
const RIGHT = 4;
/** …where that is less than this share of what the right way leaves. */
const BETTER = 0.65;
/** White that differs by more is another paper's, or another lot's: a device cannot change it. */
const OTHER_WHITE = 1;
/** A sheet that is as near to the right way is no matter of its paper, unless the white explains a share of the rest. */
const PAPER_MATTERS = 1.5;
const PAPER_SHARE = 0.85;
/** A way that leaves the white unexplained has to explain so much of the rest. */
const MOST_OF_IT = 0.5;

/**
 * Names what happened to a job on its way.
 * @param measured absolute Lab of the sheet, row-major × 3, in the order of the picture.
 * @param whites rows of the picture's white.
 */
export function chainCause(
  measured: Float64Array,
  hypotheses: readonly ChainHypothesis[],
  whites: readonly number[],
): ChainFinding {
  const scored = hypotheses
    .map((hypothesis) => {
      const apart = deltaE2000Rows(measured, hypothesis.lab);
      const squares = apart.map((deltaE) => Math.min(FARTHEST, deltaE) ** 2);
      return { ...hypothesis, mean: mean(apart), score: Math.sqrt(mean(squares)) };
    })
    .sort((a, b) => a.score - b.score);
  const right = scored.find(({ cause }) => cause === 'right');
  const best = scored[0];
  if (right === undefined || best === undefined) throw new RangeError('the right way is not among the ways');
  const own = meanLab(measured, whites);
  const expected = meanLab(right.lab, whites);
  const white = deltaE2000(expected, own);
  const finding = {
    fromRight: right.mean,
    white,
    tried: unique(scored.map(({ cause, says, mean: deltaE }) => ({ cause, says, mean: deltaE }))),
  };
  const whiteLeft = white > OTHER_WHITE && deltaE2000(meanLab(best.lab, whites), own) > OTHER_WHITE;
  const another =
    best !== right &&
    (!whiteLeft || best.mean <= MOST_OF_IT * right.mean) &&
    (right.mean > RIGHT ? best.mean <= BETTER * right.mean : isTowards(measured, right.lab, best.lab));
  if (another && best.mean <= Math.max(EXPLAINED, EXPLAINED_SHARE * right.mean)) {
    const alike = scored.filter(({ cause, score }) => cause !== 'right' && score <= ALIKE * best.score);
    const says = [...new Set(alike.map((way) => way.says))];
    return { ...finding, cause: best.cause, says, fromBest: best.mean };
  }
  const rest = mean(deltaE2000Rows(measured, onWhite(right.lab, expected, own)));
  // A white that a nearer way explains is no other paper's, even where the ways print too much alike to be told apart.
  const explained = best !== right && !whiteLeft && best.mean <= MOST_OF_IT * right.mean;
  if (!explained && white > OTHER_WHITE && (right.mean > PAPER_MATTERS || rest <= PAPER_SHARE * right.mean)) {
    const says = ['it was printed on another paper, or another lot of it'];
    return { ...finding, cause: 'paper', says, fromBest: rest };
  }
  if (right.mean > RIGHT || another) return { ...finding, cause: 'unknown', says: [], fromBest: best.mean };
  return { ...finding, cause: 'right', says: [right.says], fromBest: right.mean };
}

/** Whether a sheet lies on another way rather than on the right one, in ΔE of each patch's own neighbourhood. */
function isTowards(measured: Float64Array, right: Float64Array, other: Float64Array): boolean {
  const weights = new Float64Array(9);
  let along = 0;
  let apart = 0;
  for (let i = 0; i < right.length; i += 3) {
    labWeights(right[i], right[i + 1], right[i + 2], 1, weights);
    for (let row = 0; row < 9; row += 3) {
      let way = 0;
      let sheet = 0;
      for (let c = 0; c < 3; c++) {
        way += weights[row + c] * (other[i + c] - right[i + c]);
        sheet += weights[row + c] * (measured[i + c] - right[i + c]);
      }
      along += way * sheet;
      apart += way * way;
    }
  }
  return along >= TOWARDS * apart && Math.sqrt((3 * apart) / right.length) >= TOLD_APART;
}

function meanLab(lab: Float64Array, rows: readonly number[]): Lab {
  const at = (axis: number): number => mean(rows.map((row) => lab[3 * row + axis]));
  return [at(0), at(1), at(2)];
}

/** Colours of one paper as another makes them: XYZ scaled by the whites. */
function onWhite(lab: Float64Array, from: Lab, to: Lab): Float64Array {
  const a = labToXyz(from, WHITE_D50_MEASURED);
  const b = labToXyz(to, WHITE_D50_MEASURED);
  const out = new Float64Array(lab.length);
  for (let i = 0; i < lab.length; i += 3) {
    const xyz = labToXyz([lab[i], lab[i + 1], lab[i + 2]], WHITE_D50_MEASURED);
    out.set(
      xyzToLab([(xyz[0] * b[0]) / a[0], (xyz[1] * b[1]) / a[1], (xyz[2] * b[2]) / a[2]], WHITE_D50_MEASURED),
      i,
    );
  }
  return out;
}

/** The nearest of each way that is said alike. */
function unique<T extends { readonly says: string }>(sorted: readonly T[]): T[] {
  return sorted.filter((way, i) => sorted.findIndex(({ says }) => says === way.says) === i);
}
