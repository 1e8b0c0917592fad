import { MOST_WEDGE_PATCHES as MOST } from '@melto/core/charts/controlWedge';
import type { OwnPatch } from '@melto/services/wedges/printWedge';
import { numberOf } from '@/ui/numberOf';

export type ParsedPatches =
  | { readonly ok: true; readonly patches: OwnPatch[] }
  | { readonly ok: false; readonly words: string };

/** Lines of four per cents and a name; says which line is wrong and why. */
export function parseOwnPatches(text: string): ParsedPatches {
  const patches: OwnPatch[] = [];
  for (const [index, line] of text.split(/\r?\n/).entries()) {
    if (line.trim() === '') continue;
    const words = line.trim().split(/[\s;]+/);
    const device = words.slice(0, 4).map(numberOf);
    if (device.length < 4 || device.some((value) => !(value >= 0 && value <= 100)))
      return {
        ok: false,
        words: `Line ${index + 1}: found “${line.trim().slice(0, 40)}”, expected four numbers from 0 to 100 and a name.`,
      };
    patches.push({ name: words.slice(4).join(' ').slice(0, 80), device });
  }
  if (patches.length === 0) return { ok: false, words: 'Give a line for each patch.' };
  if (patches.length > MOST) return { ok: false, words: `${patches.length} patches; ${MOST} at most.` };
  return { ok: true, patches };
}
