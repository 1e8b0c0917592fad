/** Lines of an ink in its own printed colour; black in the colour of text, which shows in both themes. */
export function inkLine(ink: string, colour: string | undefined): string {
  return ink === 'K' || colour === undefined ? 'var(--text)' : colour;
}

export const percent = (share: number, decimals = 1): string => (100 * share).toFixed(decimals);
