import type { Certainty, ToleranceMetric, ToleranceSet } from '../toleranceSet.ts';

// Values as commonly published; check them against your copy of the standard.
type Group = ToleranceMetric['group'];
type Quantity = ToleranceMetric['quantity'];
const largest = (group: Group, limit: number, quantity: Quantity = 'ΔE00') =>
  ({ group, statistic: 'largest', quantity, limit }) as const;
const mean = (group: Group, limit: number, quantity: Quantity = 'ΔE00') =>
  ({ group, statistic: 'mean', quantity, limit }) as const;
const percentile95 = (limit: number) =>
  ({ group: 'all', statistic: '95th percentile', quantity: 'ΔE00', limit }) as const;
const sure = (certainty: Certainty, metrics: readonly ToleranceMetric[]): ToleranceMetric[] =>
  metrics.map((metric) => ({ ...metric, certainty }));

/** What proof and validation print share. */
const PRINT: readonly ToleranceMetric[] = [
  largest('substrate', 3),
  mean('all', 2.5),
  percentile95(5),
  largest('solids', 3),
  mean('greys', 2, 'ΔCh'),
];

/** Weighted limits of the near-neutral scales, as used in practice. */
const GREYSCALE: readonly ToleranceMetric[] = [
  mean('grey scale', 1.5, 'wΔL'),
  largest('grey scale', 3, 'wΔL'),
  mean('grey scale', 1.5, 'wΔCh'),
  largest('grey scale', 3, 'wΔCh'),
  mean('black scale', 1.5, 'wΔL'),
  largest('black scale', 3, 'wΔL'),
];

const TARGETED: readonly ToleranceMetric[] = [
  ...GREYSCALE,
  largest('substrate', 3),
  largest('chromatic solids', 3.5),
  largest('black solid', 5),
  largest('overprints', 4.2),
];

/** What offset asks of an OK sheet beside its solids. */
const OFFSET: readonly ToleranceMetric[] = [
  ...sure('published', [
    largest('substrate', 3, 'ΔL'),
    largest('substrate', 2, 'Δa'),
    largest('substrate', 2, 'Δb'),
  ]),
  // No one number for all inks is published; a house sets its own.
  ...sure('chosen here', [largest('chromatic solids', 5, 'ΔH')]),
  ...sure('published', [
    largest('midtones', 4, 'ΔTV'),
    largest('quarter tones', 3, 'ΔTV'),
    largest('three-quarter tones', 3, 'ΔTV'),
    { group: 'chromatic midtones', statistic: 'spread', quantity: 'ΔTV', limit: 5 },
  ]),
];

const RUN =
  'How a run varies from its OK sheet (solids within ΔE*ab 4, yellow 5, for 68 % of the sheets) cannot be judged on a single sheet.';
const PROOF =
  'Evenness over the sheet, repeatability from day to day, fading, drying and rub cannot be judged on a single sheet.';
const PRESS = 'How a run varies cannot be judged on a single sheet.';

const G7 = 'G7, as commonly published; check against your copy';

export const TOLERANCE_SETS: readonly ToleranceSet[] = [
  {
    id: 'iso12647-7-proof',
    name: 'ISO 12647-7 proof',
    source: 'ISO 12647-7:2016, as commonly published; check against your copy',
    substrateUncorrected: true,
    metrics: sure('published', [
      ...PRINT,
      largest('chromatic solids', 2.5, 'ΔH'),
      largest('greys', 3.5, 'ΔCh'),
      mean('outer gamut', 2.5),
      largest('spot colours', 2.5),
    ]),
    notJudged: [PROOF],
  },
  {
    id: 'iso12647-8-validation',
    name: 'ISO 12647-8 validation print',
    source: 'ISO 12647-8, edition not told; check against your copy',
    substrateUncorrected: true,
    metrics: sure('taken over', PRINT),
    notJudged: [PROOF],
  },
  {
    id: 'iso12647-2-production',
    name: 'ISO 12647-2 production print',
    source: 'ISO 12647-2:2013, OK sheet against the aims, as commonly published; check against your copy',
    substrateUncorrected: true,
    metrics: [...sure('published', [largest('solids', 5, 'ΔE*ab')]), ...OFFSET],
    notJudged: [RUN],
  },
  {
    id: 'iso12647-2-production-00',
    name: 'ISO 12647-2 production print, ΔE00',
    source:
      'ISO 12647-2:2013, its informative limits in ΔE00, as commonly published; check against your copy',
    substrateUncorrected: true,
    metrics: [...sure('published', [largest('chromatic solids', 3.5), largest('black solid', 5)]), ...OFFSET],
    notJudged: [RUN],
  },
  {
    ...{ id: 'g7-greyscale', name: 'G7 greyscale', source: G7, substrateUncorrected: false },
    ...{ metrics: sure('published', GREYSCALE), notJudged: [PRESS] },
  },
  {
    ...{ id: 'g7-targeted', name: 'G7 targeted', source: G7, substrateUncorrected: false },
    ...{ metrics: sure('published', TARGETED), notJudged: [PRESS] },
  },
  {
    id: 'g7-colour-space',
    name: 'G7 colour space',
    source: G7,
    substrateUncorrected: false,
    metrics: sure('published', [...TARGETED, mean('all', 1.5), percentile95(3)]),
    notJudged: [PRESS],
  },
  {
    id: 'house-photo',
    name: 'House: photo print',
    source: 'house limits',
    substrateUncorrected: false,
    metrics: [mean('all', 3), largest('all', 8)],
  },
];
