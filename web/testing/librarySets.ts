import type { AimSetView } from '@melto/services/conformity/aimSets';
import type { ToleranceSetView } from '@melto/services/conformity/toleranceSets';

export function aimSet(change: Partial<AimSetView> = {}): AimSetView {
  return {
    id: 3,
    family: 'fogra39l',
    version: 1,
    name: 'FOGRA39L',
    origin: 'Offset on coated',
    source: 'data',
    conditions: { mode: 'M0' },
    patches: 1617,
    author: 'Ines Marlow',
    madeMs: Date.UTC(2026, 2, 14),
    removedMs: null,
    completed: false,
    moved: null,
    ...change,
  };
}

export function toleranceSet(change: Partial<ToleranceSetView> = {}): ToleranceSetView {
  return {
    id: 7,
    version: 1,
    shipped: true,
    author: 'Melto',
    madeMs: Date.UTC(2026, 2, 14),
    set: {
      id: 'iso12647-7-proof',
      name: 'ISO 12647-7 proof',
      source: 'as commonly published',
      substrateUncorrected: true,
      metrics: [
        { group: 'all', statistic: 'mean', quantity: 'ΔE00', limit: 2.5 },
        { group: 'spot colours', statistic: 'largest', quantity: 'ΔE00', limit: 2.5 },
      ],
    },
    ...change,
  };
}
