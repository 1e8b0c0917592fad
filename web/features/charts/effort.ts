import { needsOf } from '@melto/core/charts/chartForm';
import { pageCapacity } from '@melto/core/charts/pageGeometry';
import type { ReaderKind } from '@melto/core/charts/pageGeometry';
import type { WholeForm } from './ChartFormFields';

/** Seconds that a strip takes, with the way to the next one: drawn by hand, set patch by patch, or moved by itself. */
const SECONDS: Readonly<Record<ReaderKind, { readonly strip: number; readonly patch: number }>> = {
  strip: { strip: 14, patch: 0 },
  spot: { strip: 0, patch: 4 },
  sheet: { strip: 4, patch: 0 },
};

/** Strips, pages and minutes of a chart. */
export function effortOf(patches: number, form: WholeForm): string {
  const { patchesPerStrip, stripsPerPage } = pageCapacity(form.paper, needsOf(form));
  const strips = Math.ceil(patches / patchesPerStrip);
  const pages = Math.ceil(strips / stripsPerPage);
  const seconds = strips * SECONDS[form.reader].strip + patches * SECONDS[form.reader].patch;
  return `${strips} strips on ${pages} ${pages > 1 ? 'pages' : 'page'}, about ${Math.max(1, Math.round(seconds / 60))} min to read`;
}
