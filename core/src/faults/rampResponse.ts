import { PROCESS_INKS, toneQuantity } from '../tone/toneMeasure.ts';
import type { ProcessInk } from '../tone/toneMeasure.ts';
import { meanPaperXyz } from '../device/meanPaperXyz.ts';
import { inkRamps, patchOf } from '../tone/inkRamps.ts';
import { evaluateToneCurve } from '../tone/toneCurve.ts';
import type { ToneCurve, ToneCurves } from '../tone/toneCurve.ts';
import type { Fault } from './fault.ts';

/** What is known of a device's ramps: its own response without curves, and the curves that should have been loaded. */
export interface ExpectedRamps {
  /** Spot colour tone value by device value, one curve an ink C, M, Y, K, where earlier readings told. */
  readonly native?: ToneCurves;
  /** Curves that the sheet was meant to be printed through; none for a linear front end. */
  readonly curves?: ToneCurves;
}

/** Mean departure of ramps from a response, as tone values, below which they count as that response. */
const SAME_RESPONSE = 0.028;
/** A departure from what is expected beyond this is worth a question. */
const OTHER_RESPONSE = 0.035;

/**
 * Tells whether single-ink ramps came through curves that nobody asked for, or without those that were asked for.
 * Without earlier readings, ramps that stand on an even scale already are taken to have come through curves.
 */
export function rampResponseFaults(
  device: Float64Array,
  xyz: Float64Array,
  { native, curves }: ExpectedRamps,
): Fault[] {
  const paper = meanPaperXyz(device, 4, 0, xyz);
  if (paper === undefined) return [];
  const ramps = inkRamps(device, xyz).flatMap((ramp) => {
    const quantity = Array.from(ramp.tone, (_, i) => toneQuantity('sctv', ramp.ink, patchOf(ramp, i), paper));
    const solids = quantity.filter((_, i) => ramp.tone[i] > 0.995);
    if (solids.length === 0) return [];
    const solid = solids.reduce((a, b) => a + b, 0) / solids.length;
    return [
      {
        ink: ramp.ink,
        points: Array.from(ramp.tone, (tone, i) => ({ tone, value: quantity[i] / solid })).filter(
          ({ tone }) => tone > 0.02 && tone < 0.98,
        ),
      },
    ];
  });
  if (ramps.length < 2) return [];
  const departure = (response: (ink: ProcessInk, tone: number) => number): number => {
    const each = ramps.map(
      ({ ink, points }) =>
        points.reduce((sum, { tone, value }) => sum + Math.abs(value - response(ink, tone)), 0) /
        points.length,
    );
    return each.reduce((a, b) => a + b, 0) / each.length;
  };
  const even = departure((_, tone) => tone);
  if (curves === undefined) {
    if (native === undefined)
      return even < SAME_RESPONSE ? [faultOf('curves-on', 0.75, { even: 100 * even })] : [];
    const own = departure((ink, tone) => shareOf(native, ink, tone));
    return own > OTHER_RESPONSE
      ? [faultOf('curves-on', Math.min(0.97, 0.6 + 4 * own), { departure: 100 * own, even: 100 * even })]
      : [];
  }
  if (native === undefined) return [];
  const expected = departure((ink, tone) => throughCurves(native, curves, ink, tone));
  const without = departure((ink, tone) => shareOf(native, ink, tone));
  if (expected < OTHER_RESPONSE || without > 0.6 * expected) return [];
  return [
    faultOf('curves-missing', Math.min(0.97, 0.6 + 4 * (expected - without)), { departure: 100 * expected }),
  ];
}

/** Native response on the scale of the solid. */
function shareOf(native: ToneCurves, ink: ProcessInk, value: number): number {
  return evaluateToneCurve(curveOf(native, ink), value);
}

function throughCurves(native: ToneCurves, curves: ToneCurves, ink: ProcessInk, tone: number): number {
  const own = curveOf(native, ink);
  const loaded = curveOf(curves, ink);
  return (
    evaluateToneCurve(own, evaluateToneCurve(loaded, tone)) /
    evaluateToneCurve(own, evaluateToneCurve(loaded, 1))
  );
}

function curveOf(curves: ToneCurves, ink: ProcessInk): ToneCurve {
  return curves[PROCESS_INKS.indexOf(ink)];
}

function faultOf(
  kind: 'curves-on' | 'curves-missing',
  confidence: number,
  figures: Record<string, number>,
): Fault {
  return { kind, confidence, strips: [], figures };
}
