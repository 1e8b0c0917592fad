import { labAt } from '@melto/core/colour/labAt';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { measuredLabRows } from '@melto/core/colour/measuredLabRows';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import type { IncomingPatch, IncomingSheet } from '@melto/core/press/incomingSheet';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { readableFile, unanswered } from '../reading/measuredFile.ts';
import { runOf } from './runs.ts';
import { takeSheet } from './sheets.ts';
import type { SheetTaken } from './sheets.ts';

/** Takes a file of measurements (CGATS, CxF, CSV) of one sheet’s bar into a run. */
export async function takeSheetFile(
  context: Context,
  runId: number,
  file: Uint8Array | string,
  asked: { readonly impression: number; readonly modeTold?: boolean },
): Promise<SheetTaken> {
  const { settings } = await runOf(context, runId);
  const sheet = await sheetOfFile(context, file, { ...asked, mode: settings.mode });
  return takeSheet(context, runId, sheet);
}

/** The bar that a file holds, in the run’s measurement mode. @param modeTold a person says that a file without one is in it. */
export async function sheetOfFile(
  context: Context,
  file: Uint8Array | string,
  {
    impression,
    mode,
    modeTold,
  }: { readonly impression: number; readonly mode: 'M0' | 'M1' | 'M2' | 'M3'; readonly modeTold?: boolean },
): Promise<IncomingSheet> {
  const { modes, questions } = await readableFile(context, file, modeTold === true ? { mode } : {});
  // How device values are counted does not matter here: the bar knows them.
  const open = questions.find(({ asks }) => asks !== 'scale');
  if (open !== undefined) throw unanswered(open);
  const measured = modes.find((one) => one.mode === mode);
  if (measured === undefined)
    throw new Problem(
      'bad-input',
      `The file was measured ${modes.map((one) => one.mode ?? 'in a mode that is not told').join(', ')}; this run goes by ${mode}.`,
      'Measure in the run’s mode, or change the run’s settings.',
      'mode',
    );
  return { impression, grid: measured.set.spectra?.grid, patches: patchesOf(measured.set) };
}

function patchesOf(set: PatchSet): IncomingPatch[] {
  const { spectra } = set;
  if (spectra !== undefined)
    return set.ids.map((_, row) => ({
      spectrum: [...spectra.values.subarray(row * spectra.grid.count, (row + 1) * spectra.grid.count)],
    }));
  const xyz = patchXyz(set);
  const lab = xyz && measuredLabRows(xyz);
  return set.ids.map((_, row) => (lab === undefined ? {} : { lab: labAt(lab, row) }));
}
