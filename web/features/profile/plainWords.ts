import type { ProfileDetail, ProfileSummary } from '@melto/services/ledger/kinds/profileKind';

const two = (value: number): string => value.toFixed(2);

/** What a report says, in sentences for somebody who does not read its figures. */
export function plainWords(summary: ProfileSummary, detail: ProfileDetail): string[] {
  const { inks, smoothness, refinement, compared, report } = detail;
  const words = [
    `A patch that the model has not seen comes out within ${two(summary.mean)} ΔE00 on average, 19 of 20 within ${two(summary.p95)}; reading noise is in these figures.`,
  ];
  if (report.outliers.length > 0)
    words.push(
      `${report.outliers.length} ${report.outliers.length === 1 ? 'patch disagrees' : 'patches disagree'} with the rest: read the strip again before trusting it.`,
    );
  if (inks !== undefined)
    words.push(
      `A colour sent to ink and back returns within ${two(inks.roundTrip.mean)} ΔE00; ink reaches ${(100 * inks.totalInk).toFixed(1)} % at most.`,
      inks.reversals === 0
        ? 'Lightness and black rise evenly along the greys.'
        : `Along the greys, lightness or black turns back ${inks.reversals} times: look at the neutral axis.`,
    );
  if (smoothness !== undefined)
    words.push(
      smoothness.perceptual.largest <= SMOOTH
        ? 'No gradient shows an edge: 200 paths through colour bend gently.'
        : `Of 200 paths through colour, the roughest bends by ${two(smoothness.perceptual.largest)} ΔE*ab in one step: look at saturated gradients.`,
    );
  if (refinement !== undefined) words.push(...refinementWords(refinement));
  if (compared !== undefined) {
    const { version, difference, before, after } = compared;
    words.push(
      `Beside v${version}, the same inks are predicted ${two(difference.mean)} ΔE00 apart on average, ${two(difference.largest)} at most; black moves from L* ${before.black[0].toFixed(1)} to ${after.black[0].toFixed(1)}.`,
    );
  }
  return words;
}

/** A step of 2 ΔE*ab that bends by more than this may show as an edge. */
const SMOOTH = 2.5;
/** Sheets that differ by more than this are not the same state of the device. */
const AGREEMENT = 0.6;

function refinementWords({
  wanted,
  elsewhere,
  agreement,
  sheets,
}: NonNullable<ProfileDetail['refinement']>): string[] {
  const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
  const words: string[] = [];
  if (wanted.length > 0)
    words.push(
      `${wanted.length} wanted ${wanted.length === 1 ? 'colour' : 'colours'}: printed ${two(mean(wanted.map(({ before }) => before)))} ΔE00 off before, expected ${two(mean(wanted.map(({ after }) => after)))} now.`,
    );
  words.push(
    elsewhere.after <= elsewhere.before
      ? `Elsewhere it is no worse: ${two(elsewhere.before)} before, ${two(elsewhere.after)} now.`
      : `Elsewhere ${two(elsewhere.before)} became ${two(elsewhere.after)}.`,
  );
  if (agreement !== null && agreement > AGREEMENT)
    words.push(
      `Papers and overprints of ${sheets.join(' and ')} differ by ${two(agreement)} ΔE00 from the first sheet: the device has moved between them.`,
    );
  return words;
}
