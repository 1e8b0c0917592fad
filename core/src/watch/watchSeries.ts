import type { Series } from '../series/seriesSet.ts';
import { MAIN_AXIS } from '../tone/mainAxis.ts';
import { meanOfPlaces, watchLab, WATCH_PATCHES } from './watchFigures.ts';

/** One charted quantity of a watch. */
export interface WatchSeries extends Series {
  /** `paper`, `C solid`, `greys`, `C 50`. */
  readonly group: string;
  readonly quantity: 'L*' | 'a*' | 'b*' | 'tone value';
}

const INKS = ['C', 'M', 'Y', 'K'] as const;
const QUANTITIES = ['L*', 'a*', 'b*'] as const;
/** On the mean of three patches. */
const LEAST_SIGMA = { 'L*': 0.06, 'a*': 0.08, 'b*': 0.1, 'tone value': 0.1 } as const;

const rowOf = (name: string): number => WATCH_PATCHES.findIndex((patch) => patch.name === name);

function labSeries(group: string, rows: readonly number[]): WatchSeries[] {
  return QUANTITIES.map((quantity, axis) => ({
    group,
    quantity,
    leastSigma: LEAST_SIGMA[quantity],
    value: (figures) => rows.reduce((sum, row) => sum + watchLab(figures, row)[axis], 0) / rows.length,
  }));
}

/** All series of a watch: paper, solids and greys in L*, a*, b*, midtones in tone value. */
export const WATCH_SERIES: readonly WatchSeries[] = [
  ...labSeries('paper', [rowOf('paper')]),
  ...INKS.flatMap((ink) => labSeries(`${ink} solid`, [rowOf(`${ink} 100`)])),
  ...labSeries('greys', [rowOf('grey 25'), rowOf('grey 50'), rowOf('grey 75')]),
  ...INKS.map((ink, channel): WatchSeries => {
    const [paper, solid, tint] = [rowOf('paper'), rowOf(`${ink} 100`), rowOf(`${ink} 50`)];
    return {
      group: `${ink} 50`,
      quantity: 'tone value',
      leastSigma: LEAST_SIGMA['tone value'],
      value: (figures) => {
        const at = (row: number): number => meanOfPlaces(figures, row)[MAIN_AXIS[channel]];
        return (100 * (at(paper) - at(tint))) / (at(paper) - at(solid));
      },
    };
  }),
];
