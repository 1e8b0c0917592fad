import type { AimByHand } from '@melto/services/conformity/newAimSet';
import { numberOf } from '@/ui/numberOf';

export type ParsedAims =
  | { readonly ok: true; readonly rows: AimByHand[] }
  | { readonly ok: false; readonly words: string };

const MOST = 400;

/** Lines of C M Y K in per cent and L* a* b*; says which line is wrong and why. */
export function parseAimRows(text: string): ParsedAims {
  const rows: AimByHand[] = [];
  for (const [index, line] of text.split(/\r?\n/).entries()) {
    if (line.trim() === '') continue;
    const values = line
      .trim()
      .split(/[\s;]+/)
      .map(numberOf);
    const device = values.slice(0, 4);
    const [l = NaN, a = NaN, b = NaN] = values.slice(4);
    const right =
      values.length === 7 &&
      device.every((value) => value >= 0 && value <= 100) &&
      l >= 0 &&
      l <= 100 &&
      Math.abs(a) <= 200 &&
      Math.abs(b) <= 200;
    if (!right)
      return {
        ok: false,
        words: `Line ${index + 1}: found “${line.trim().slice(0, 40)}”, expected C M Y K from 0 to 100 and L* a* b*.`,
      };
    rows.push({ device, lab: [l, a, b] });
  }
  if (rows.length === 0) return { ok: false, words: 'Give a line for each aim.' };
  if (rows.length > MOST) return { ok: false, words: `${rows.length} aims; ${MOST} at most by hand.` };
  return { ok: true, rows };
}
