import { neutralDensity } from '../density/density.ts';
import { verdictOf, worstVerdict } from '../judgement/verdict.ts';
import type { Verdict } from '../judgement/verdict.ts';
import { mean } from '../numerics/statistics.ts';
import { aimStanding, greyAim, neutralDensityAim, neutralLightness, neutralWeight } from './neutralAim.ts';
import type { AimStanding } from './neutralAim.ts';
import { WEIGHTED_LIMITS } from './data/neutralAims.ts';
import type { NeutralReading, ScaleStep } from './neutralScales.ts';

export interface NeutralStep {
  readonly tone: number;
  readonly lab: readonly [number, number, number];
  /** Aim; a* and b* are judged on the CMY scale only. */
  readonly aim: readonly [number, number, number];
  /** Weighted, signed. */
  readonly wDeltaL: number;
  /** Weighted length of Δa*, Δb*; 0 on the K scale. */
  readonly wDeltaCh: number;
}

export interface NeutralFigures {
  readonly mean: number;
  readonly largest: number;
}

export interface NeutralJudgement {
  readonly cmy: readonly NeutralStep[];
  readonly k: readonly NeutralStep[];
  readonly cmyDensity: number;
  readonly kDensity: number;
  readonly cmyStanding: AimStanding;
  readonly kStanding: AimStanding;
  readonly figures: {
    readonly cmyL: NeutralFigures;
    readonly cmyCh: NeutralFigures;
    readonly kL: NeutralFigures;
  };
  readonly limits: { readonly mean: number; readonly largest: number };
  readonly verdict: Verdict;
  /** An aim outside the densities that the family was fitted to. */
  readonly extrapolated: boolean;
}

/** Judges both scales against their aims by weighted differences; means are of absolute values. */
export function judgeNeutrals(
  reading: NeutralReading,
  limits: { readonly mean: number; readonly largest: number } = WEIGHTED_LIMITS,
): NeutralJudgement {
  const paperY = reading.paperXyz[1];
  const cmyDensity = scaleDensity(reading.cmy, paperY);
  const kDensity = scaleDensity(reading.k, paperY);
  const cmy = reading.cmy.slice(1).map((step): NeutralStep => {
    const aim = greyAim(step.tone, cmyDensity, [...reading.paperLab], paperY);
    const weight = neutralWeight(step.tone);
    return {
      tone: step.tone,
      lab: step.lab,
      aim,
      wDeltaL: weight * (step.lab[0] - aim[0]),
      wDeltaCh: weight * Math.hypot(step.lab[1] - aim[1], step.lab[2] - aim[2]),
    };
  });
  const k = reading.k.slice(1).map((step): NeutralStep => {
    const lightness = neutralLightness(neutralDensityAim('k', step.tone, kDensity), paperY);
    return {
      tone: step.tone,
      lab: step.lab,
      aim: [lightness, step.lab[1], step.lab[2]],
      wDeltaL: neutralWeight(step.tone) * (step.lab[0] - lightness),
      wDeltaCh: 0,
    };
  });
  const figures = {
    cmyL: figuresOf(cmy.map(({ wDeltaL }) => wDeltaL)),
    cmyCh: figuresOf(cmy.map(({ wDeltaCh }) => wDeltaCh)),
    kL: figuresOf(k.map(({ wDeltaL }) => wDeltaL)),
  };
  const cmyStanding = aimStanding('cmy', cmyDensity);
  const kStanding = aimStanding('k', kDensity);
  const judged = cmyStanding !== 'none' && kStanding !== 'none';
  return {
    cmy,
    k,
    cmyDensity,
    kDensity,
    cmyStanding,
    kStanding,
    figures,
    limits,
    verdict: judged
      ? worstVerdict(
          Object.values(figures).flatMap((f) => [
            verdictOf(f.mean, limits.mean),
            verdictOf(f.largest, limits.largest),
          ]),
        )
      : 'not-judged',
    extrapolated: cmyStanding === 'extrapolated' || kStanding === 'extrapolated',
  };
}

/** Neutral density over paper of a scale's darkest step, its 100 % patch. */
function scaleDensity(steps: readonly ScaleStep[], paperY: number): number {
  return neutralDensity(steps[steps.length - 1].xyz[1], paperY);
}

function figuresOf(values: readonly number[]): NeutralFigures {
  const absolute = values.map(Math.abs);
  return { mean: mean(absolute), largest: Math.max(...absolute) };
}
