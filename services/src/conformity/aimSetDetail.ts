import { aimPrimaries, aimsApart } from '@melto/core/conformity/aimPrimaries';
import type { AimPrimary, AimsApart } from '@melto/core/conformity/aimPrimaries';
import type { MeasurementConditions } from '@melto/core/cgats/patchSet';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { aimPatches, aimSetVersions, loadAims } from './aimSets.ts';
import type { AimSetView } from './aimSets.ts';
import type { Download } from '../kernel/download.ts';
import type { Context } from '../kernel/context.ts';

/** An aim set with what can be said of it in few numbers. */
export interface AimSetDetail {
  readonly view: AimSetView;
  /** All its versions, the latest first. */
  readonly versions: readonly AimSetView[];
  readonly primaries: readonly AimPrimary[];
  /** How far it is from the version before it; null of the first. */
  readonly sinceBefore: AimsApart | null;
  readonly hasSpectra: boolean;
}

export async function aimSetDetail(context: Context, id: number): Promise<AimSetDetail> {
  const [{ view, aims }, versions] = await Promise.all([loadAims(context, id), aimSetVersions(context, id)]);
  const before = versions.find(({ version }) => version < view.version);
  return {
    view,
    versions,
    primaries: aimPrimaries(aims),
    sinceBefore: before === undefined ? null : aimsApart(aims, (await loadAims(context, before.id)).aims),
    hasSpectra: aims.spectra !== undefined,
  };
}

/** Paper, solids and overprints of an aim set as named colours, and how they were measured. */
export async function aimColours(
  context: Context,
  id: number,
): Promise<{ readonly colours: readonly NamedColour[]; readonly conditions: MeasurementConditions }> {
  const { view, aims } = await loadAims(context, id);
  return {
    colours: aimPrimaries(aims).map(({ name, lab }) => ({ name, lab })),
    conditions: view.conditions,
  };
}

/** An aim set as CGATS: what it gives, not what is completed from it. */
export async function aimSetFile(context: Context, id: number): Promise<Download> {
  const { view, aims } = await loadAims(context, id);
  const set = { ...aimPatches(aims), title: view.name, originator: `Melto, from ${view.origin}` };
  return {
    name: `${view.name.replace(/[^\p{L}\p{N} ._-]/gu, '')} v${view.version}.txt`,
    mediaType: 'text/plain',
    content: new TextEncoder().encode(writeCgats(patchSetToCgats(set))),
  };
}
