import { capabilityOf, shareOf } from './capability.ts';
import type { Capability, Share } from './capability.ts';
import { judgedFigure, judgedPlace, patchMeasures } from './barVerdict.ts';
import type { PatchMeasure } from './barVerdict.ts';
import type { ColourBar } from './colourBar.ts';
import type { PressUnit } from './pressUnit.ts';
import type { Judging } from './runSettings.ts';

/** One sheet's figures: row-major patch × 3 (ΔE, density, the third figure), NaN where there is none. */
export interface SheetFigures {
  readonly impression: number;
  readonly figures: ArrayLike<number>;
}

/** What patches are put together by: an ink, or what several inks make. */
export interface AnalysisRow {
  readonly key: string;
  readonly words: string;
  readonly quantity: PatchMeasure['quantity'];
  /** Share within tolerance of all its values; none where nothing was judged. */
  readonly share: Share | undefined;
  /** By zone. */
  readonly zones: readonly (Share | undefined)[];
  readonly mean: number;
  readonly at95: number;
  readonly largest: number;
  readonly limit: number;
  readonly capability: Capability | undefined;
}

export interface RunAnalysis {
  readonly sheets: number;
  readonly values: number;
  /** Share of sheets with every judged patch within, and of patches. */
  readonly sheetShare: Share | undefined;
  readonly patchShare: Share | undefined;
  readonly rows: readonly AnalysisRow[];
  /** Share of patches within over the run, in steps of equally many sheets. */
  readonly overTime: readonly { readonly from: number; readonly to: number; readonly share: number }[];
}

/** Steps that a run is drawn in. */
const MOST_STEPS = 60;
/** Values that a percentile is told by; more are thinned evenly. */
const MOST_VALUES = 20_000;

interface Group {
  readonly key: string;
  readonly words: string;
  readonly measure: PatchMeasure;
  readonly patches: number[];
}

/** Puts patches together: solids and tints by ink, else by kind. */
export function analysisGroups(
  bar: ColourBar,
  units: readonly PressUnit[],
  settings: Judging,
): readonly Group[] {
  const groups = new Map<string, Group>();
  patchMeasures(bar, units, settings).forEach((measure, at) => {
    if (measure === undefined) return;
    const { kind, tones } = bar.patches[at];
    const unit = kind === 'solid' || kind === 'tint' ? tones.findIndex((tone) => tone > 0) : -1;
    const ink = unit >= 0 ? units[unit].ink : '';
    const key = unit >= 0 ? `${kind} ${ink}` : kind;
    const words =
      unit >= 0 ? `${ink} ${kind === 'solid' ? 'solid' : 'tints'}` : `${kind}${kind === 'paper' ? '' : 's'}`;
    const group = groups.get(key) ?? { key, words, measure, patches: [] };
    group.patches.push(at);
    groups.set(key, group);
  });
  const order = ['solid', 'tint', 'overprint', 'grey', 'paper'];
  const place = ({ key }: Group): number => order.findIndex((kind) => key.startsWith(kind));
  return [...groups.values()].sort((a, b) => place(a) - place(b));
}

/** Shares within tolerance of a run, or of several on one bar, by ink, zone and time. @param sheets in their order. */
export function analyseRun(
  bar: ColourBar,
  units: readonly PressUnit[],
  settings: Judging,
  sheets: readonly SheetFigures[],
): RunAnalysis {
  const groups = analysisGroups(bar, units, settings);
  const inside = new Int32Array(sheets.length);
  const known = new Int32Array(sheets.length);
  const rows = groups.map((group) => analysisRow(bar, group, sheets, inside, known));
  let [whole, judged, patchesIn, patches] = [0, 0, 0, 0];
  for (let at = 0; at < sheets.length; at++) {
    if (known[at] === 0) continue;
    judged++;
    if (inside[at] === known[at]) whole++;
    patchesIn += inside[at];
    patches += known[at];
  }
  const steps = Math.min(MOST_STEPS, sheets.length);
  const overTime = Array.from({ length: steps }, (_, step) => {
    const [from, to] = [step, step + 1].map((edge) => Math.floor((edge * sheets.length) / steps));
    let [within, of] = [0, 0];
    for (let at = from; at < to; at++) [within, of] = [within + inside[at], of + known[at]];
    return {
      from: sheets[from].impression,
      to: sheets[to - 1].impression,
      share: of === 0 ? NaN : within / of,
    };
  });
  return {
    sheets: sheets.length,
    values: patches,
    sheetShare: judged === 0 ? undefined : shareOf(whole, judged),
    patchShare: patches === 0 ? undefined : shareOf(patchesIn, patches),
    rows,
    overTime,
  };
}

function analysisRow(
  { patches: places, zones }: ColourBar,
  { key, words, measure, patches }: Group,
  sheets: readonly SheetFigures[],
  inside: Int32Array,
  known: Int32Array,
): AnalysisRow {
  const within = new Int32Array(zones);
  const of = new Int32Array(zones);
  const step = Math.max(1, Math.ceil((sheets.length * patches.length) / MOST_VALUES));
  const kept: number[] = [];
  // A million values are gone through while somebody waits.
  const placeOf = Int32Array.from(patches, (patch) => judgedPlace(measure, patch));
  const zoneOf = Int32Array.from(patches, (patch) => places[patch].zone);
  const { limit } = measure;
  let [sum, signed, squares, largest, count] = [0, 0, 0, 0, 0];
  for (let at = 0; at < sheets.length; at++) {
    const { figures } = sheets[at];
    let [judged, good] = [0, 0];
    for (let i = 0; i < placeOf.length; i++) {
      const value = figures[placeOf[i]];
      if (!(value === value)) continue;
      const size = Math.abs(value);
      of[zoneOf[i]]++;
      judged++;
      if (size <= limit) {
        within[zoneOf[i]]++;
        good++;
      }
      sum += size;
      signed += value;
      squares += value * value;
      if (size > largest) largest = size;
      if (count++ % step === 0) kept.push(size);
    }
    known[at] += judged;
    inside[at] += good;
  }
  const total = (counts: Int32Array): number => counts.reduce((all, one) => all + one, 0);
  const sizes = Float64Array.from(kept).sort();
  const mean = signed / count;
  const deviation = Math.sqrt(Math.max(0, squares - count * mean * mean) / (count - 1));
  return {
    ...{ key, words, quantity: measure.quantity, limit: measure.limit, largest },
    share: total(of) === 0 ? undefined : shareOf(total(within), total(of)),
    zones: Array.from(of, (judged, zone) => (judged === 0 ? undefined : shareOf(within[zone], judged))),
    mean: count === 0 ? NaN : sum / count,
    at95: sizes.length === 0 ? NaN : sizes[Math.min(sizes.length - 1, Math.ceil(0.95 * sizes.length) - 1)],
    // A difference has no lower limit; a tone value lies between two.
    capability: capabilityOf(
      { count, mean, deviation },
      measure.quantity === 'ΔTV' ? [-measure.limit, measure.limit] : [undefined, measure.limit],
    ),
  };
}

/** Readings outside of one row and zone: impression, patch and value, the worst first. */
export function outsideOf(
  bar: ColourBar,
  units: readonly PressUnit[],
  settings: Judging,
  sheets: readonly SheetFigures[],
  { key, zone }: { readonly key: string; readonly zone: number | undefined },
  most: number,
): readonly { readonly impression: number; readonly patch: number; readonly value: number }[] {
  const group = analysisGroups(bar, units, settings).find((one) => one.key === key);
  if (group === undefined) return [];
  const patches = group.patches.filter((patch) => zone === undefined || bar.patches[patch].zone === zone);
  const found = sheets.flatMap(({ impression, figures }) =>
    patches.flatMap((patch) => {
      const value = judgedFigure(group.measure, figures, patch);
      return Math.abs(value) > group.measure.limit ? [{ impression, patch, value }] : [];
    }),
  );
  return found.sort((a, b) => Math.abs(b.value) - Math.abs(a.value)).slice(0, most);
}
