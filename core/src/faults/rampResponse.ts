import type { Process } from '../device/process.ts';
import { toneQuantity } from '../tone/toneMeasure.ts';
import { meanPaperXyz } from '../device/meanPaperXyz.ts';
import { inkRamps, patchOf } from '../tone/inkRamps.ts';
import { evaluateToneCurve } from '../tone/toneCurve.ts';
import type { ToneCurve, ToneCurves } from '../tone/toneCurve.ts';
import type { Fault } from './fault.ts';

/** What is known of a device's ramps: its own response without curves, and the curves that should have been loaded. */
export interface ExpectedRamps {
  /** Spot colour tone value by device value, one curve a channel, where earlier readings told. */
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
  process: Process,
  device: Float64Array,
  xyz: Float64Array,
  { native, curves }: ExpectedRamps,
): Fault[] {
  const paper = meanPaperXyz(process, device, xyz);
  if (paper === undefined) return [];
  const ramps = inkRamps(process, device, xyz).flatMap((ramp) => {
    const quantity = Array.from(ramp.tone, (_, i) => toneQuantity('sctv', ramp.ink, patchOf(ramp, i), paper));
    const solids = quantity.filter((_, i) => ramp.tone[i] > 0.995);
    if (solids.length === 0) return [];
    const solid = solids.reduce((a, b) => a + b, 0) / solids.length;
    return [
      {
        channel: ramp.channel,
        points: Array.from(ramp.tone, (tone, i) => ({ tone, value: quantity[i] / solid })).filter(
          ({ tone }) => tone > 0.02 && tone < 0.98,
        ),
      },
    ];
  });
  if (ramps.length < 2) return [];
  const departure = (response: (channel: number, tone: number) => number): number => {
    const each = ramps.map(
      ({ channel, points }) =>
        points.reduce((sum, { tone, value }) => sum + Math.abs(value - response(channel, tone)), 0) /
        points.length,
    );
    return each.reduce((a, b) => a + b, 0) / each.length;
  };
  const even = departure((_, tone) => tone);
  if (curves === undefined) {
    if (native === undefined)
      return even < SAME_RESPONSE ? [faultOf('curves-on', 0.75, { even: 100 * even })] : [];
    const own = departure((channel, tone) => shareOf(native, channel, tone));
    return own > OTHER_RESPONSE
      ? [faultOf('curves-on', Math.min(0.97, 0.6 + 4 * own), { departure: 100 * own, even: 100 * even })]
      : [];
  }
  if (native === undefined) return [];
  const expected = departure((channel, tone) => throughCurves(native, curves, channel, tone));
  const without = departure((channel, tone) => shareOf(native, channel, tone));
  if (expected < OTHER_RESPONSE || without > 0.6 * expected) return [];
  return [
    faultOf('curves-missing', Math.min(0.97, 0.6 + 4 * (expected - without)), { departure: 100 * expected }),
  ];
}

/** Native response on the scale of the solid. */
function shareOf(native: ToneCurves, channel: number, value: number): number {
  return evaluateToneCurve(curveOf(native, channel), value);
}

function throughCurves(native: ToneCurves, curves: ToneCurves, channel: number, tone: number): number {
  const own = curveOf(native, channel);
  const loaded = curveOf(curves, channel);
  return (
    evaluateToneCurve(own, evaluateToneCurve(loaded, tone)) /
    evaluateToneCurve(own, evaluateToneCurve(loaded, 1))
  );
}

function curveOf(curves: ToneCurves, channel: number): ToneCurve {
  return curves[channel];
}

function faultOf(
  kind: 'curves-on' | 'curves-missing',
  confidence: number,
  figures: Record<string, number>,
): Fault {
  return { kind, confidence, strips: [], figures };
}
