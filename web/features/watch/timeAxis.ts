import { TICK } from '@/ui/axes';
import { formatDay } from '@/ui/format';

/** What the charts of a watch share: days across, values with one decimal, margins. */
export const WATCH_MARGIN = { top: 8, right: 12, bottom: 4, left: -4 };

export const TIME_AXIS = {
  dataKey: 't',
  type: 'number' as const,
  domain: ['dataMin', 'dataMax'],
  tickFormatter: formatDay,
  tick: TICK,
  tickLine: false,
  stroke: 'var(--rule)',
  minTickGap: 40,
};

export const VALUE_AXIS = {
  tick: TICK,
  tickLine: false,
  axisLine: false,
  width: 56,
  tickFormatter: (value: number) => value.toFixed(1),
};
