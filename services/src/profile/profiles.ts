import { readIcc } from '@melto/core/icc/readIcc';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import type { FitReport } from '@melto/core/characterise/fitReport';
import type { UncertaintyMap } from '@melto/core/characterise/uncertaintyMap';
import type { ErrorSummary } from '@melto/core/numerics/statistics';
import type { TableSize } from '@melto/core/profile/buildRgbProfile';
import type { InkProfileReport } from '@melto/core/profile/inkReport';
import { unwrap } from '@melto/core/result';
import type { SeparationChoice } from '@melto/core/separate/separation';
import { insertJob } from '@melto/store/jobs';
import { listHeads } from '@melto/store/results';
import { conditionOf } from '../ledger/conditions.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { checkAdded } from './pooledReadings.ts';
import type { PatchOfReading } from './pooledReadings.ts';
import type { ProfileComparison } from './profileComparison.ts';
import { completeReading } from '../reading/readings.ts';
import type { RefinementFigures } from './refinementFigures.ts';
import { resultFile } from '../ledger/versions.ts';

export type { FitReport };

export interface ProfileChoices {
  readonly readingId: number;
  /** Further readings of charts printed through the same curves: a second chart, a refinement. */
  readonly addedReadingIds?: readonly number[];
  /** What whoever takes the profile should know. */
  readonly note?: string;
  readonly version: 2 | 4;
  readonly tableSize: TableSize;
  readonly namePattern: string;
  /** Ink devices: black generation, and total ink at the input of the curves (1 = 100 %). */
  readonly separation?: SeparationChoice;
}

export interface ProfileSummary {
  readonly name: string;
  readonly version: 2 | 4;
  readonly tableSize: TableSize;
  readonly mean: number;
  readonly p95: number;
  readonly largest: number;
  readonly repeatability: number | null;
  readonly bytes: number;
  readonly mode: string;
  readonly code: string;
  readonly patches: number;
  /** Printed ramps R, G, B and grey from paper to solid, Lab, nine steps each. */
  readonly ramps: readonly (readonly (readonly number[])[])[];
  /** Outline of the gamut in a*b*. */
  readonly outline: readonly (readonly [number, number])[];
  /** The reading was made before its sheet had rested, or shows faults. */
  readonly warnings: readonly string[];
}

export interface ProfileDetail {
  readonly choices: ProfileChoices;
  readonly report: FitReport;
  /** What the colorimetric intent makes of a neutral ramp: asked L*, device, printed Lab. */
  readonly neutral: readonly {
    readonly asked: number;
    readonly device: readonly number[];
    readonly lab: readonly number[];
  }[];
  /** Ink devices: what the separations came to. */
  readonly inks?: Pick<InkProfileReport, 'roundTrip' | 'totalInk' | 'reversals'>;
  /** Patches that disagree with the rest: worth another reading. */
  readonly suspicious?: readonly PatchOfReading[];
  /** Ink devices: where the model is sure and where not. */
  readonly uncertainty?: UncertaintyMap;
  /** Ink devices: largest bends along 200 paths, ΔE*ab a step of 2. */
  readonly smoothness?: { readonly colorimetric: ErrorSummary; readonly perceptual: ErrorSummary };
  /** Against the profile that was in force before. */
  readonly compared?: ProfileComparison;
  /** Where readings were added. */
  readonly refinement?: RefinementFigures;
}

export const BUILD_PROFILE = 'build-profile';

/** Least number of patches that can carry a model. */
const LEAST_PATCHES = { rgb: 40, cmyk: 150, cmykog: 150 } as const;
export const DEFAULT_SEPARATION = { black: 'medium', totalInk: 3 } as const;

export async function requestProfile(
  services: Services,
  conditionId: number,
  choices: ProfileChoices,
): Promise<{ readonly jobId: number }> {
  await conditionOf(services, conditionId);
  const loaded = await completeReading(services, conditionId, choices.readingId);
  const least = LEAST_PATCHES[loaded.condition.space];
  if (loaded.chart.purpose !== 'profile' || loaded.rows.length < least)
    throw new Problem(
      'bad-input',
      `A profile needs a profiling chart of at least ${least} patches.`,
      'Choose a reading of a profiling chart.',
      'readingId',
    );
  for (const added of choices.addedReadingIds ?? [])
    checkAdded(loaded, await completeReading(services, conditionId, added));
  return {
    jobId: await insertJob(
      services.database,
      { kind: BUILD_PROFILE, conditionId, input: { conditionId, choices } },
      LOCAL_PERSON,
      services.now(),
    ),
  };
}

/** The profile in force on a condition. */
export async function profileInForce(
  services: Services,
  condition: number,
): Promise<
  { readonly resultId: number; readonly version: number; readonly profile: IccProfile } | undefined
> {
  const head = (await listHeads(services.database, condition)).find(({ link }) => link === 'profile');
  if (head === undefined) return undefined;
  const file = await resultFile(services, head.id, 'profile');
  return { resultId: head.id, version: head.version, profile: unwrap(readIcc(file.content)) };
}
