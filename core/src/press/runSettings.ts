import { DENSITY_STATUSES } from '../density/density.ts';
import type { DensityStatus } from '../density/density.ts';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import { deltaEAb } from '../colour/deltaEAb.ts';
import type { ColourDifference } from './bestDensity.ts';
import type { ColourBar } from './colourBar.ts';
import type { PressUnit } from './pressUnit.ts';
import { USUAL_LIGHT } from './runLight.ts';
import type { RunLight } from './runLight.ts';

export const GUIDES = ['colour', 'density'] as const;
/** What the next move goes by. */
export type Guide = (typeof GUIDES)[number];

export const RUN_FORMULAS = ['ΔE00', 'ΔE*ab'] as const;
export type RunFormula = (typeof RUN_FORMULAS)[number];

export const WHITE_BASES = ['paper', 'absolute'] as const;
/** What densities are counted from: the paper, or a perfect reflector. */
export type WhiteBase = (typeof WHITE_BASES)[number];

export const PHASES = ['make-ready', 'production', 'finished'] as const;
export type Phase = (typeof PHASES)[number];

export const differenceOf: Readonly<Record<RunFormula, ColourDifference>> = {
  ΔE00: deltaE2000,
  'ΔE*ab': deltaEAb,
};

/** Tolerances of a run, in units of its formula, tone values in per cent. */
export interface RunTolerances {
  readonly paper: number;
  readonly solids: number;
  readonly blackSolid: number;
  readonly spots: number;
  readonly overprints: number;
  readonly greys: number;
  readonly tone: number;
  readonly spread: number;
  /** Where density is the guide. */
  readonly density: number;
}

/** Of ISO 12647-2:2013 as commonly published; overprints, greys and densities are chosen here. */
export const USUAL_TOLERANCES: Readonly<Record<RunFormula, RunTolerances>> = {
  ΔE00: {
    ...{ paper: 3, solids: 3.5, blackSolid: 5, spots: 2.5, overprints: 4.2, greys: 3, tone: 4, spread: 5 },
    density: 0.07,
  },
  'ΔE*ab': {
    ...{ paper: 3.5, solids: 5, blackSolid: 5, spots: 3.5, overprints: 6, greys: 3, tone: 4, spread: 5 },
    density: 0.07,
  },
};

export interface RunSettings extends RunLight {
  readonly guide: Guide;
  readonly formula: RunFormula;
  readonly status: DensityStatus;
  readonly white: WhiteBase;
  readonly mode: 'M0' | 'M1' | 'M2' | 'M3';
  /** Impressions after which a change of keys has arrived. */
  readonly settle: number;
  readonly tolerances: RunTolerances;
  /** Densities from the white base that are wanted where density is the guide, by ink. */
  readonly densities: Readonly<Record<string, number>>;
}

/** What a run begins with where nothing else is known. */
export const USUAL_SETTINGS: RunSettings = {
  ...USUAL_LIGHT,
  ...{ guide: 'colour', formula: 'ΔE00', status: 'E', white: 'paper', mode: 'M1', settle: 150 },
  densities: {},
  tolerances: USUAL_TOLERANCES['ΔE00'],
};

export const RUN_STATUSES = DENSITY_STATUSES;

/** What of the settings patches are judged by. */
export type Judging = Pick<RunSettings, 'tolerances' | 'formula'>;

/** The tolerance of a patch, in units of the run's formula; tints and lines go by tone, not by this. */
export function patchTolerance(
  settings: Judging,
  { patches }: ColourBar,
  units: readonly PressUnit[],
  patch: number,
): number | undefined {
  const { kind, tones } = patches[patch];
  const { tolerances } = settings;
  if (kind === 'paper') return tolerances.paper;
  if (kind === 'overprint') return tolerances.overprints;
  if (kind !== 'solid') return undefined;
  return solidTolerance(settings, units[tones.findIndex((tone) => tone > 0)]);
}

/** The tolerance of a unit's solid; one of its list is of ΔE00, and goes for no other formula. */
export function solidTolerance({ tolerances, formula }: Judging, { ink, tolerance }: PressUnit): number {
  if (tolerance !== undefined && formula === 'ΔE00') return tolerance;
  if (ink === 'K') return tolerances.blackSolid;
  return ['C', 'M', 'Y'].includes(ink) ? tolerances.solids : tolerances.spots;
}
