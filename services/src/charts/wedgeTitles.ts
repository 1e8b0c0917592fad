import type { WedgeKind } from '@melto/core/charts/controlWedge';

/** Titles of wedges on sheets and in lists; which wedge it is, its chart's kind tells. */
export const WEDGE_TITLES: Readonly<Record<WedgeKind | 'own', string>> = {
  proof: 'Proof wedge',
  'near-neutral': 'Near-neutral wedge',
  watch: 'Watch wedge',
  own: 'Own wedge',
};
