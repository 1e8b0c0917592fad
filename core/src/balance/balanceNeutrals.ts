import { cmykPlaces } from '../device/cmykWithin.ts';
import { CMYK } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { evaluateCubicSpline, fitSmoothingSpline } from '../numerics/smoothingSpline.ts';
import { fitResponse } from '../tone/fitResponse.ts';
import { smoothToneCurve } from '../tone/smoothToneCurve.ts';
import { chainToneCurves, invertToneCurve, sampleToneCurve } from '../tone/toneCurve.ts';
import type { ToneCurve } from '../tone/toneCurve.ts';
import { fitGreyModel } from './greyModel.ts';
import { greyMagentaYellow } from './greyTriplet.ts';
import { greyAim, neutralDensityAim, neutralLightness } from './neutralAim.ts';
import { judgeNeutrals } from './judgeNeutrals.ts';
import type { NeutralJudgement } from './judgeNeutrals.ts';
import type { NeutralReading } from './neutralScales.ts';

export interface NeutralBalance {
  /** How the sheet stands, before this round's correction. */
  readonly judgement: NeutralJudgement;
  /** Curves for the next round, by channel of the process; those of inks beside C, M, Y and K stay as they are. */
  readonly next: readonly ToneCurve[];
  /** Lab that the grey scale should give through them, at the steps of the scale. */
  readonly predicted: readonly (readonly [number, number, number])[];
  /** Lightness that the K scale should give. */
  readonly predictedK: readonly number[];
  /** rms of what the local model leaves of the greys with small changes. */
  readonly modelResidual: number;
}

/** Above this tone value the correction fades to the native solid. */
const FADE_FROM = 0.9;
const SOLVED = Array.from({ length: 37 }, (_, i) => (i + 1) * 0.025);

/**
 * One round of balance: the inks whose grey meets the aim at each step, as smooth rising curves chained before the
 * curves the sheet was printed through.
 * @param present by channel of the process.
 */
export function balanceNeutrals(
  reading: NeutralReading,
  present: readonly ToneCurve[],
  process: Process = CMYK,
): NeutralBalance {
  const judgement = judgeNeutrals(reading);
  const model = fitGreyModel(reading);
  const paperY = reading.paperXyz[1];
  const paper: [number, number, number] = [...reading.paperLab];
  const corrections = solveCorrections(judgement, model, paper, paperY);
  const k = correctBlack(reading, judgement, paperY);
  const curves = [...corrections, k];
  const places = cmykPlaces(process);
  const at = (channel: number, tone: number): number =>
    curves[channel][Math.round(tone * (curves[channel].length - 1))];
  return {
    judgement,
    next: present.map((curve, channel) => {
      const own = places.indexOf(channel);
      return own < 0 ? curve : smoothToneCurve(chainToneCurves(curves[own], curve));
    }),
    predicted: judgement.cmy.map(({ tone }) => {
      const grey = greyMagentaYellow(tone);
      return model.lab([at(0, tone), at(1, grey), at(2, grey)]);
    }),
    predictedK: predictBlack(reading, judgement, k),
    modelResidual: model.residual,
  };
}

/** Corrections of C, M and Y as curves from document tone to the tone to send now. */
function solveCorrections(
  judgement: NeutralJudgement,
  model: ReturnType<typeof fitGreyModel>,
  paper: [number, number, number],
  paperY: number,
): ToneCurve[] {
  const shifts = SOLVED.map((tone) => {
    const aim = greyAim(tone, judgement.cmyDensity, paper, paperY);
    const inks = model.inks(aim, tone);
    const grey = greyMagentaYellow(tone);
    const fade = fadeAt(tone);
    return { tone, grey, shift: [inks[0] - tone, inks[1] - grey, inks[2] - grey].map((s) => s * fade) };
  });
  return [0, 1, 2].map((channel) =>
    shiftCurve(
      shifts.map(({ tone, grey }) => (channel === 0 ? tone : grey)),
      shifts.map(({ shift }) => shift[channel]),
    ),
  );
}

/** 1 up to 90 %, then falling smoothly to 0 at 100 %. */
function fadeAt(tone: number): number {
  if (tone <= FADE_FROM) return 1;
  const u = (tone - FADE_FROM) / (1 - FADE_FROM);
  return 1 - u * u * (3 - 2 * u);
}

/** Identity plus smooth shifts that vanish at both ends; rising. */
function shiftCurve(tones: readonly number[], shifts: readonly number[]): ToneCurve {
  const x = [0, ...tones, 1];
  const y = [0, ...shifts, 0];
  const weights = x.map((_, i) => (i === 0 || i === x.length - 1 ? 1000 : 1));
  for (let least = 1e-7; ; least *= 10) {
    const { spline } = fitSmoothingSpline(x, y, weights, least);
    const offset = [evaluateCubicSpline(spline, 0), evaluateCubicSpline(spline, 1)];
    const curve = sampleToneCurve(
      (t) => t + evaluateCubicSpline(spline, t) - offset[0] * (1 - t) - offset[1] * t,
    );
    if (risesWithin(curve) || least > 1) return tidy(curve);
  }
}

function risesWithin(curve: ToneCurve): boolean {
  for (let i = 1; i < curve.length; i++)
    if (curve[i] - curve[i - 1] < 0.1 / (curve.length - 1) || curve[i] > 1 || curve[i] < 0) return false;
  return true;
}

/** Guards the ends against rounding. */
function tidy(curve: ToneCurve): ToneCurve {
  curve[0] = 0;
  curve[curve.length - 1] = 1;
  for (let i = 1; i < curve.length; i++) curve[i] = Math.min(1, Math.max(curve[i - 1], curve[i]));
  return curve;
}

function blackResponse(reading: NeutralReading): ToneCurve {
  const tones: number[] = [];
  const darkness: number[] = [];
  for (const step of reading.k)
    for (let copy = 0; copy < step.rows.length; copy++) {
      tones.push(step.tone);
      darkness.push(reading.paperLab[0] - step.lab[0]);
    }
  const { spline } = fitResponse({ tone: tones, value: darkness });
  const [zero, full] = [evaluateCubicSpline(spline, 0), evaluateCubicSpline(spline, 1)];
  const curve = sampleToneCurve((t) => (evaluateCubicSpline(spline, t) - zero) / (full - zero));
  for (let i = 1; i < curve.length; i++) curve[i] = Math.max(curve[i], curve[i - 1]);
  return curve;
}

function correctBlack(reading: NeutralReading, judgement: NeutralJudgement, paperY: number): ToneCurve {
  const response = blackResponse(reading);
  const range = reading.paperLab[0] - reading.k[reading.k.length - 1].lab[0];
  const shifts = SOLVED.map((tone) => {
    const lightness = neutralLightness(neutralDensityAim('k', tone, judgement.kDensity), paperY);
    return (invertToneCurve(response, (reading.paperLab[0] - lightness) / range) - tone) * fadeAt(tone);
  });
  return shiftCurve(SOLVED, shifts);
}

function predictBlack(reading: NeutralReading, judgement: NeutralJudgement, correction: ToneCurve): number[] {
  const response = blackResponse(reading);
  const range = reading.paperLab[0] - reading.k[reading.k.length - 1].lab[0];
  return judgement.k.map(({ tone }) => {
    const sent = correction[Math.round(tone * (correction.length - 1))];
    return reading.paperLab[0] - range * response[Math.round(sent * (response.length - 1))];
  });
}
