import type { BodyComparison, ComparedBody } from './compareBodies.ts';

/** Every thirty degrees of Lab hue from red at 30°, after where process inks and their overprints lie. */
const HUES = [
  ...['red', 'orange', 'yellow', 'lime', 'green', 'sea green'],
  ...['turquoise', 'cyan', 'sky blue', 'blue', 'purple', 'magenta'],
];

/** What a hue of Lab is called. */
export function hueName(a: number, b: number): string {
  const degrees = (Math.atan2(b, a) * 180) / Math.PI - 30;
  return HUES[((Math.round(degrees / 30) % 12) + 12) % 12];
}

/** Less chroma than this is a grey. */
const GREY_CHROMA = 8;

/** A colour in words: `light blue`, `dark grey`. */
export function colourName([lightness, a, b]: readonly number[]): string {
  return `${lightnessWord(lightness)}${Math.hypot(a, b) < GREY_CHROMA ? 'grey' : hueName(a, b)}`;
}

/** Below 1 ΔE00 nobody sees it, below 3 beside each other only. */
function seenWords({ over1, over3 }: Pick<ComparedBody, 'over1' | 'over3'>): string {
  if (over1 < 0.01) return 'nobody would see it';
  return over3 < 0.05 ? 'one would see it with both side by side' : 'one would see it in a print';
}

/** What one body holds that the other does not, and whether one would see it. */
export function reachSentence(own: ComparedBody, other: ComparedBody, shared: number): string {
  const share = 1 - shared / own.volume;
  if (own.farthest === undefined || share < 0.001)
    return `${own.name} holds no colour that ${other.name} does not.`;
  const { lab, deltaE } = own.farthest;
  return (
    `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} % of the colours of ${own.name} is out of reach for ${other.name}, ` +
    `farthest in ${lightnessWord(lab[0])}${hueName(lab[1], lab[2])} by ${deltaE.toFixed(1)} ΔE00; ${seenWords(own)}.`
  );
}

const lightnessWord = (l: number): string => (l < 35 ? 'dark ' : l > 70 ? 'light ' : '');

export function comparisonSentences({ a, b, shared }: BodyComparison): string[] {
  return [reachSentence(a, b, shared), reachSentence(b, a, shared)];
}
