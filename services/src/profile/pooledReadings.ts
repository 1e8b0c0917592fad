import { joinPatchSets } from '@melto/core/cgats/joinPatchSets';
import { patchXyz } from '@melto/core/cgats/patchColours';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import type { Xyz } from '@melto/core/colour/xyz';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { paperIssue } from '@melto/core/device/paperIssue';
import type { Process } from '@melto/core/device/process';
import { issueText } from '@melto/core/result';
import type { Context } from '../kernel/context.ts';
import type { PatchOfReading } from '../ledger/kinds/profileKind.ts';
import { Problem } from '../kernel/problem.ts';
import { loadReading } from '../reading/loadReading.ts';
import type { LoadedReading } from '../reading/loadReading.ts';

/** The readings a model is fitted to, as one. */
export interface PooledReadings {
  readonly first: LoadedReading;
  readonly added: readonly LoadedReading[];
  readonly set: PatchSet;
  readonly device: Float64Array;
  readonly xyz: Float64Array;
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
): Promise<PooledReadings> {
  const first = await loadReading(context, readingId);
  const added = await Promise.all(addedIds.map((id) => loadReading(context, id)));
  for (const other of added) checkAdded(first, other);
  const set = joinPatchSets([first, ...added].map((loaded) => loaded.set));
  const xyz = patchXyz(set);
  if (set.device === undefined || xyz === undefined)
    throw new Error(`reading ${readingId} has no device values or no colours`);
  return { first, added, set, device: set.device, xyz };
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
