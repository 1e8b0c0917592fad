/** Shared looks of the plots. */
export const TICK = { fontSize: 12, fill: 'var(--quiet)' };

export function axisLabel(value: string) {
  return { value, position: 'insideBottom' as const, offset: -10, fontSize: 12, fill: 'var(--quiet)' };
}

export function sideLabel(value: string) {
  return {
    value,
    angle: -90,
    position: 'insideLeft' as const,
    offset: 16,
    fontSize: 12,
    fill: 'var(--quiet)',
    style: { textAnchor: 'middle' as const },
  };
}

/** A horizontal axis of per cent, or of L*, from 0 to 100. */
export function hundredAxis(dataKey: string, label: string) {
  return {
    dataKey,
    type: 'number' as const,
    domain: [0, 100],
    ticks: [0, 25, 50, 75, 100],
    tick: TICK,
    tickLine: false,
    stroke: 'var(--rule)',
    label: axisLabel(label),
  };
}

/** A figure as it stands at an axis, with a minus sign where it is below zero. */
export const tickWords = (value: number): string => String(value).replace('-', '−');

/** A vertical axis without a line. */
export function sideAxis(ticks: readonly number[], label: string) {
  return {
    domain: [ticks[0], ticks[ticks.length - 1]],
    ticks: [...ticks],
    tick: TICK,
    tickLine: false,
    axisLine: false,
    width: 52,
    tickFormatter: tickWords,
    label: sideLabel(label),
  };
}
