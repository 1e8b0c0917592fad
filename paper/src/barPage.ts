import { roomOf } from '@melto/core/press/colourBar';
import type { ColourBar } from '@melto/core/press/colourBar';
import type { PageDrawing } from './chartPage.ts';

/** Height of the patches, and of what stands under them. */
const PATCH_HEIGHT_MM = 6;
const FOOT_MM = 5;
const MARGIN_MM = 3;
/** Lines of slur fields: 40 % of the area, as fine as plates hold well. */
const LINE_MM = 0.1;
const PITCH_MM = 0.25;

/**
 * A colour bar as it goes on the plates: patches over all zones, the borders of the zones as thin marks under it. Values
 * are by unit, in the order of the units.
 */
export function drawBar(bar: ColourBar, words: string): PageDrawing {
  const { zones, zoneMm, patchMm } = bar;
  const width = zones * zoneMm + 2 * MARGIN_MM;
  const height = PATCH_HEIGHT_MM + FOOT_MM + 2 * MARGIN_MM;
  const next = new Int32Array(zones);
  const patches: PageDrawing['patches'][number][] = [];
  const perZone = roomOf(bar);
  for (const { kind, zone, tones } of bar.patches) {
    // What a zone has room for beside its patches lies half at each end.
    const spare = (zoneMm - perZone * patchMm) / 2;
    const x = MARGIN_MM + zone * zoneMm + spare + next[zone]++ * patchMm;
    const field = { x, y: MARGIN_MM, width: patchMm, height: PATCH_HEIGHT_MM };
    if (kind !== 'slur along' && kind !== 'slur across') {
      if (kind !== 'paper') patches.push({ rectangle: field, device: tones });
      continue;
    }
    const solid = tones.map((tone) => (tone > 0 ? 1 : 0));
    const along = kind === 'slur along';
    const lines = Math.floor((along ? patchMm : PATCH_HEIGHT_MM) / PITCH_MM);
    for (let line = 0; line < lines; line++)
      patches.push({
        rectangle: along
          ? { ...field, x: x + line * PITCH_MM, width: LINE_MM }
          : { ...field, y: MARGIN_MM + line * PITCH_MM, height: LINE_MM },
        device: solid,
      });
  }
  const foot = MARGIN_MM + PATCH_HEIGHT_MM;
  return {
    ...{ width, height, patches, marks: [] },
    texts: [{ text: words, x: MARGIN_MM, y: height - MARGIN_MM, sizeMm: 2.6, font: 'text' }],
    lines: Array.from({ length: zones + 1 }, (_, zone) => {
      const x = MARGIN_MM + zone * zoneMm;
      return { from: { x, y: foot }, to: { x, y: foot + 1.5 } };
    }),
  };
}
