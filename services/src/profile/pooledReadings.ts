import { joinPatchSets } from '@melto/core/cgats/joinPatchSets';
import { patchXyz } from '@melto/core/cgats/patchColours';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { adaptationOf, coloursUnder } from '@melto/core/light/colourUnder';
import type { SeenIn } from '@melto/core/light/colourUnder';
import { spectraAtUv } from '@melto/core/light/ultraviolet';
import type { Matrix3 } from '@melto/core/numerics/matrix3';
import type { Xyz } from '@melto/core/colour/xyz';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { paperIssue } from '@melto/core/device/paperIssue';
import type { Process } from '@melto/core/device/process';
import { issueText } from '@melto/core/result';
import type { Context } from '../kernel/context.ts';
import type { LightChoice, PatchOfReading } from '../ledger/kinds/profileKind.ts';
import { Problem } from '../kernel/problem.ts';
import { viewingLight } from '../light/viewingLights.ts';
import { requireSpectra } from '../reading/readingUnder.ts';
import { ultravioletPair } from './ultraviolet.ts';
import { loadReading } from '../reading/loadReading.ts';
import type { LoadedReading } from '../reading/loadReading.ts';

/** The readings a model is fitted to, as one. */
export interface PooledReadings {
  readonly first: LoadedReading;
  readonly added: readonly LoadedReading[];
  readonly set: PatchSet;
  readonly device: Float64Array;
  /** D50, as the readings have it or as their light shows it. */
  readonly xyz: Float64Array;
  /** Where they are seen in another light: from its XYZ to D50. */
  readonly adaptation?: Matrix3;
}

/** Refuses a reading that does not describe the same state of the device. */
export function checkAdded(first: LoadedReading, added: LoadedReading): void {
  const refuse = (title: string, detail: string): never => {
    throw new Problem('bad-input', title, detail, 'addedReadingIds');
  };
  if (added.reading.id === first.reading.id)
    refuse('A reading cannot be added to itself.', 'Choose another one.');
  if (added.chart.purpose !== 'profile')
    refuse('Only readings of profiling charts can be added.', 'Choose a second chart or a refinement.');
  if (added.print.curvesResultId !== first.print.curvesResultId)
    refuse(
      `${added.print.code} was printed through other curves than ${first.print.code}.`,
      'Print it again through the curves of the first chart.',
    );
  if (added.reading.mode !== first.reading.mode)
    refuse(
      `${added.print.code} was read in ${added.reading.mode}, ${first.print.code} in ${first.reading.mode}.`,
      'Read both in the same mode.',
    );
}

export async function pooledReadings(
  context: Context,
  readingId: number,
  addedIds: readonly number[] = [],
  light?: LightChoice,
): Promise<PooledReadings> {
  const loaded = await Promise.all([readingId, ...addedIds].map((id) => loadReading(context, id)));
  for (const other of loaded.slice(1)) checkAdded(loaded[0], other);
  // What was measured stays as it was; only its colours are those of the light.
  const set = joinPatchSets(loaded.map((own) => own.set));
  const seen = light === undefined ? undefined : await seenIn(context, light);
  const [first, ...added] =
    seen === undefined
      ? loaded
      : await Promise.all(loaded.map((own, i) => inLight(context, own, seen, light?.uv, i)));
  const xyz =
    seen === undefined ? patchXyz(set) : Float64Array.from([first, ...added].flatMap((own) => [...own.xyz]));
  if (set.device === undefined || xyz === undefined)
    throw new Error(`reading ${readingId} has no device values or no colours`);
  const adaptation = seen === undefined ? undefined : adaptationOf(seen);
  return { first, added, set, device: set.device, xyz, adaptation };
}

async function seenIn(context: Context, { key, observer }: LightChoice): Promise<SeenIn> {
  return { light: await viewingLight(context, key), observer };
}

/** A reading with its colours as a light shows them, with the ultraviolet that acts in it. */
async function inLight(
  context: Context,
  loaded: LoadedReading,
  seen: SeenIn,
  uv: LightChoice['uv'],
  at: number,
): Promise<LoadedReading> {
  let spectra = requireSpectra(loaded);
  if (uv !== undefined) {
    const without = uv.withoutReadingIds[at];
    if (without === undefined)
      throw new Problem(
        'bad-input',
        `${loaded.print.code} was not read without ultraviolet.`,
        'Read each sheet in M1 and in M2, or leave ultraviolet as it was read.',
        'light',
      );
    spectra = spectraAtUv(await ultravioletPair(context, loaded, without), uv.share);
  }
  const xyz = coloursUnder(spectra, seen);
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  return { ...loaded, xyz, lab };
}

/** Where the rows of the pooled patches were read. */
export function whereRead({ first, added }: PooledReadings, rows: readonly number[]): PatchOfReading[] {
  const all = [first, ...added].flatMap((loaded) =>
    loaded.rows.map((row) => ({ readingId: loaded.reading.id, code: loaded.print.code, row })),
  );
  return rows.map((row) => all[row]);
}

/** Mean colour of the bare paper of readings; a refusal where they have none, or none that can be one. */
export function barePaper(process: Process, { device, xyz }: Pick<PooledReadings, 'device' | 'xyz'>): Xyz {
  const paper = meanPaperXyz(process, device, xyz);
  if (paper === undefined)
    throw new Problem('bad-input', 'The reading has no bare paper.', 'Print a chart that has it.');
  const impossible = paperIssue(paper);
  if (impossible !== undefined)
    throw new Problem(
      'bad-input',
      `Nothing can be built on this reading: ${issueText(impossible)}.`,
      'Read the chart again, or give the file that was measured from it.',
    );
  return paper;
}
