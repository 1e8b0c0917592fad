import type { WedgeKind } from '@melto/core/charts/controlWedge';

/** Titles by which wedges are known on sheets and in lists. */
export const WEDGE_TITLES: Readonly<Record<WedgeKind | 'own', string>> = {
  proof: 'Proof wedge',
  'near-neutral': 'Near-neutral wedge',
  watch: 'Watch wedge',
  own: 'Own wedge',
};

/** Whether a chart, a sheet or a reading is of the watch wedge. */
export function isWatchWedge({ title }: { readonly title: string }): boolean {
  return title === WEDGE_TITLES.watch;
}
