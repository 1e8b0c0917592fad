import { fitInks, inkModelXyz } from '../characterise/inkModel.ts';
import { smoothStep } from '../numerics/smoothStep.ts';
import { sctvDistance } from './sctv.ts';
import { sampleToneCurve } from './toneCurve.ts';
import type { ToneCurve } from './toneCurve.ts';

/** A light ink and its full ink as one: what each of them prints for a tone of both. */
export interface LightJoin {
  readonly light: ToneCurve;
  readonly full: ToneCurve;
  /** Tone at which the full ink begins, 0..1. */
  readonly begins: number;
  /** Most of the light ink anywhere, and where. */
  readonly mostLight: { readonly amount: number; readonly tone: number };
}

/** The full ink begins at this share of the tone that the light one reaches: later is finer, but needs more light ink. */
const BEGINS = 0.55;
const LEAST_ROWS = 24;
const HALVINGS = 30;

/**
 * Joins a light and a full ink without a step: the full ink comes in slowly, the light one makes up what is missing to an
 * even scale by SCTV (ISO 20654) and leaves again where the full ink carries the tone alone.
 * @param device light and full ink of each patch, row-major × 2: ramps of both, and overprints.
 * @param xyz Y = 100; bare paper and the full solid among them.
 * @param most of the light ink, 0..1.
 * @throws RangeError where the patches do not tell of both inks and of what they print together.
 */
export function joinLightInk(device: Float64Array, xyz: Float64Array, most = 1): LightJoin {
  const rows = device.length / 2;
  const has = (test: (light: number, full: number) => boolean): number => {
    let count = 0;
    for (let i = 0; i < rows; i++) if (test(device[2 * i], device[2 * i + 1])) count++;
    return count;
  };
  if (
    rows < LEAST_ROWS ||
    has((l, f) => l === 0 && f === 0) === 0 ||
    has((l, f) => l > 0 && f === 0) < 5 ||
    has((l, f) => l === 0 && f > 0) < 5 ||
    has((l, f) => l > 0 && f > 0) < 5
  )
    throw new RangeError(
      'too little of a light and a full ink: paper, five tints of each and five overprints of both are needed, 24 patches in all',
    );
  const model = fitInks(device, 2, xyz);
  const out = new Float64Array(3);
  const paper = new Float64Array(3);
  inkModelXyz(model, [0, 0], paper);
  const distance = (light: number, full: number): number => {
    inkModelXyz(model, [light, full], out);
    return sctvDistance(out, 0, paper);
  };
  const whole = distance(0, 1);
  const tone = (light: number, full: number): number => distance(light, full) / whole;
  const lightest = tone(most, 0);
  if (!(lightest < 0.9))
    throw new RangeError('the light ink is nearly as strong as the full one: is it the other way round?');
  const begins = BEGINS * lightest;
  const amounts = Array.from({ length: 257 }, (_, i) => amountsFor(tone, i / 256, begins, most));
  const at = (channel: 0 | 1) => (t: number) => amounts[Math.round(256 * t)][channel];
  const light = sampleToneCurve(at(0));
  const tip = amounts.reduce((best, own, i) => (own[0] > amounts[best][0] ? i : best), 0);
  return {
    light,
    full: sampleToneCurve(at(1)),
    begins,
    mostLight: { amount: amounts[tip][0], tone: tip / 256 },
  };
}

function amountsFor(
  tone: (light: number, full: number) => number,
  wanted: number,
  begins: number,
  most: number,
): readonly [light: number, full: number] {
  const alone = halved((full) => tone(0, full) - wanted, 1);
  const comes = smoothStep((wanted - begins) / (1 - begins));
  let full = comes * alone;
  // Where all of the light ink is too little, more of the full one must come.
  if (tone(most, full) < wanted) full = halved((amount) => tone(most, amount) - wanted, 1);
  const light = tone(0, full) >= wanted ? 0 : halved((amount) => tone(amount, full) - wanted, most);
  return [light, full];
}

/** The amount from 0 to `most` at which a rising function passes nought. */
function halved(over: (amount: number) => number, most: number): number {
  let low = 0;
  let high = most;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (over(middle) < 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
