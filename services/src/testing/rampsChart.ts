import type { NewPressChart } from '../calibration/pressCharts.ts';

/** A chart of ramps as tests ask for it. */
export const RAMPS_CHART: NewPressChart = {
  ...{ kind: 'ramps', paper: 'a4', reader: 'strip' },
  ...{ steps: 11, copies: 1, order: 'scrambled' },
};
