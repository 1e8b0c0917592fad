'use client';

/** Shared looks of the calibration plots. */
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

/** Lines of an ink in its own printed colour; black in the colour of text, which shows in both themes. */
export function inkLine(ink: string, colour: string | undefined): string {
  return ink === 'K' || colour === undefined ? 'var(--text)' : colour;
}

export const percent = (share: number, decimals = 1): string => (100 * share).toFixed(decimals);
