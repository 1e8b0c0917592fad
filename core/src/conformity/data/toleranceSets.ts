import type { ToleranceMetric, ToleranceSet } from '../toleranceSet.ts';

// Values as commonly published; check them against your copy of the standard.
const largest = (group: ToleranceMetric['group'], limit: number, quantity: ToleranceMetric['quantity'] = 'ΔE00') =>
  ({ group, statistic: 'largest', quantity, limit }) as const;
const mean = (group: ToleranceMetric['group'], limit: number, quantity: ToleranceMetric['quantity'] = 'ΔE00') =>
  ({ group, statistic: 'mean', quantity, limit }) as const;

/** What proof and validation print share. */
const PRINT: readonly ToleranceMetric[] = [
  largest('substrate', 3),
  mean('all', 2.5),
  { group: 'all', statistic: '95th percentile', quantity: 'ΔE00', limit: 5 },
  largest('solids', 3),
  mean('greys', 2, 'ΔCh'),
];

export const TOLERANCE_SETS: readonly ToleranceSet[] = [
  {
    id: 'iso12647-7-proof',
    name: 'ISO 12647-7 proof',
    source: 'ISO 12647-7, as commonly published; check against your copy',
    substrateUncorrected: true,
    metrics: [
      ...PRINT,
      largest('chromatic solids', 2.5, 'ΔH'),
      largest('greys', 3.5, 'ΔCh'),
      mean('outer gamut', 2.5),
    ],
  },
  {
    id: 'iso12647-8-validation',
    name: 'ISO 12647-8 validation print',
    source: 'ISO 12647-8, as commonly published; check against your copy',
    substrateUncorrected: true,
    metrics: PRINT,
  },
  {
    id: 'house-photo',
    name: 'House: photo print',
    source: 'house limits',
    substrateUncorrected: false,
    metrics: [mean('all', 3), largest('all', 8)],
  },
];
