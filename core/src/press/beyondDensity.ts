import { labAt } from '../colour/labAt.ts';
import type { BarFigures } from './barFigures.ts';
import { barPatchWords } from './colourBar.ts';
import type { ColourBar } from './colourBar.ts';
import type { PressUnit } from './pressUnit.ts';
import type { RunTolerances } from './runSettings.ts';

/** What stands in the way where density alone does not bring a colour to its aim. */
export const BARRIERS = ['stock', 'ink', 'trapping', 'sequence', 'dot gain'] as const;
export type Barrier = (typeof BARRIERS)[number];

export interface Beyond {
  readonly barrier: Barrier;
  readonly words: string;
}

/** Trapping below this is poor for wet ink on wet ink. */
const POOR_TRAPPING = 65;
/** Over this much of an ink's own density lost under the one printed on it, the order of the units is in question. */
const MOST_TRAPPING = 108;

interface SolidState {
  /** Least difference that any density brings, worst zone. */
  readonly best: number;
  readonly unreachable: boolean;
}

/**
 * What density cannot mend, by what it comes from, worst first of each. @param wanted Lab of the aims and @param lab of the
 * sheet, in the run's light; @param solids by unit.
 */
export function beyondDensity(
  bar: ColourBar,
  units: readonly PressUnit[],
  figures: BarFigures,
  wanted: ArrayLike<number>,
  lab: ArrayLike<number>,
  solids: readonly SolidState[],
  limits: Pick<RunTolerances, 'paper' | 'tone' | 'overprints'>,
): Beyond[] {
  const found: Beyond[] = [];
  const places = (kind: string): number[] =>
    bar.patches.flatMap((patch, at) =>
      patch.kind === kind && Number.isFinite(figures.deltaE[at]) ? [at] : [],
    );
  const papers = places('paper');
  const paperOff = papers.length === 0 ? 0 : Math.max(...papers.map((at) => figures.deltaE[at]));
  if (paperOff > limits.paper) {
    const [at] = papers;
    found.push({
      barrier: 'stock',
      words: `The stock is ΔE ${paperOff.toFixed(1)} from the paper of the aims (b* ${signed(labAt(lab, at)[2] - labAt(wanted, at)[2])}): what is printed on it moves with it.`,
    });
  }
  solids.forEach(({ best, unreachable }, unit) => {
    if (unreachable)
      found.push({
        barrier: 'ink',
        words: `${units[unit].ink}: at no density nearer than ΔE ${best.toFixed(1)} to its aim. The ink itself, or what it is printed on, is of another hue.`,
      });
  });
  for (const at of worstFirst(places('overprint'), figures.deltaE)) {
    if (figures.deltaE[at] <= limits.overprints) continue;
    const inks = units.flatMap((_, unit) => (bar.patches[at].tones[unit] > 0 ? [unit] : []));
    if (inks.some((unit) => solids[unit].unreachable) || inks.length !== 2) continue;
    const trapping = figures.other[at];
    const words = `${barPatchWords(units, bar.patches[at])}: ΔE ${figures.deltaE[at].toFixed(1)} though both solids can be met`;
    if (trapping < POOR_TRAPPING)
      found.push({
        barrier: 'trapping',
        words: `${words}: ${units[inks[1]].ink} traps ${Math.round(trapping)} % on ${units[inks[0]].ink}. Tack, water and ink temperature decide it, not density.`,
      });
    else if (trapping > MOST_TRAPPING)
      found.push({
        barrier: 'sequence',
        words: `${words}: ${units[inks[1]].ink} takes ${Math.round(trapping)} % on ${units[inks[0]].ink}, as if it were printed first. Check the order of the units.`,
      });
  }
  units.forEach((_, unit) => {
    if (solids[unit].unreachable) return;
    const tints = bar.patches.flatMap(({ kind, tones }, at) =>
      kind === 'tint' && tones[unit] > 0 && Math.abs(figures.other[at]) > limits.tone ? [at] : [],
    );
    if (tints.length === 0) return;
    const [at] = worstFirst(tints, figures.other.map(Math.abs));
    found.push({
      barrier: 'dot gain',
      words: `${barPatchWords(units, bar.patches[at])}: tone value ${signed(figures.other[at])} % from its aim. Plates and curves set it; density moves it by little.`,
    });
  });
  return found.sort((a, b) => BARRIERS.indexOf(a.barrier) - BARRIERS.indexOf(b.barrier));
}

function worstFirst(places: readonly number[], by: ArrayLike<number>): number[] {
  return [...places].sort((a, b) => by[b] - by[a]);
}

function signed(value: number): string {
  return `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`;
}
