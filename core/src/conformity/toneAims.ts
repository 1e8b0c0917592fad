import { mergeRepeats } from '../characterise/mergeRepeats.ts';
import { CMYK, isBare } from '../device/process.ts';
import { failure, success } from '../result.ts';
import type { Issue, Result } from '../result.ts';
import { inkSignal, PROCESS_INKS } from '../tone/toneMeasure.ts';
import type { TonePoint } from '../tone/tviAim.ts';
import type { Aims } from './aims.ts';

/** An ink needs as many tones between paper and solid: fewer say nothing of its curve's shape. */
export const LEAST_TONES = 3;

/**
 * Tone value increase that an aim set asks of each ink, C, M, Y, K: as it is published where only that is, else from
 * its single-ink patches by the same signal that curves are made with.
 */
export function toneAims(aims: Aims): Result<TonePoint[][]> {
  const { published } = aims;
  if (published !== undefined)
    return success(
      (['C', 'M', 'Y', 'K'] as const).map((ink) =>
        published.tvi[ink].map(([tone, increase]) => ({ tone: tone / 100, increase: increase / 100 })),
      ),
    );
  const { device, xyz, counts } = mergeRepeats(aims.device, 4, aims.xyz);
  const rows = Array.from(counts, (_, row) => row);
  const paper = rows.find((row) => isBare(CMYK, device, row));
  if (paper === undefined) return failure(lacking('a patch of bare paper'));
  const inks: TonePoint[][] = [];
  const issues: Issue[] = [];
  PROCESS_INKS.forEach((ink, channel) => {
    const alone = rows.filter((row) =>
      [0, 1, 2, 3].every((other) =>
        other === channel ? device[4 * row + other] > 0 : device[4 * row + other] === 0,
      ),
    );
    const toneOf = (row: number): number => device[4 * row + channel];
    const solid = alone.find((row) => toneOf(row) === 1);
    const tones = alone.filter((row) => toneOf(row) < 1).sort((a, b) => toneOf(a) - toneOf(b));
    if (solid === undefined || tones.length < LEAST_TONES) {
      issues.push(lacking(`the solid and ${LEAST_TONES} tones of ${ink} alone`));
      return;
    }
    const signal = (row: number): number => inkSignal(ink, xyz, 3 * row);
    const span = signal(paper) - signal(solid);
    inks.push(
      tones.map((row) => ({
        tone: toneOf(row),
        increase: (signal(paper) - signal(row)) / span - toneOf(row),
      })),
    );
  });
  return issues.length > 0 ? failure(...issues) : success(inks);
}

function lacking(expected: string): Issue {
  return { code: 'aims.tones', path: 'aims', expected, found: 'none' };
}
