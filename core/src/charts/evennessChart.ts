import { PROCESS_INKS } from '../tone/toneMeasure.ts';
import { dealStrips } from './layoutCopies.ts';
import type { ChartLayout } from './layoutChart.ts';
import { eightBit, pushPatch } from './namedPatches.ts';
import type { NamedPatches } from './namedPatches.ts';
import { pageCapacity, STRIP_READER_NEEDS } from './pageGeometry.ts';
import type { InstrumentNeeds, PaperName } from './pageGeometry.ts';

/** Tone of the midtone that is read beside the solid. */
export const EVENNESS_MIDTONE = eightBit(0.5);
/** Rows of the chart: each place across the width gets each ink's solid and midtone this often. */
const ROUNDS = 2;

/**
 * Evenness chart: in every row all inks' solids and midtones and the paper in turn across the whole width, moved on by one from row
 * to row, so that each place sees each of them; one page, in order.
 */
export function makeEvennessChart(
  paper: PaperName,
  needs: InstrumentNeeds = STRIP_READER_NEEDS,
): NamedPatches & { readonly layout: ChartLayout } {
  const { patchesPerStrip, stripsPerPage } = pageCapacity(paper, needs);
  const device: number[] = [];
  const names: string[] = [];
  const strips: number[][] = [];
  const kinds = [
    ...PROCESS_INKS.flatMap((ink, channel) => [
      { name: `${ink} solid`, channel, tone: 1 },
      { name: `${ink} midtone`, channel, tone: EVENNESS_MIDTONE },
    ]),
    { name: 'paper', channel: 0, tone: 0 },
  ];
  // Neighbours differ in ink: four kinds on each time.
  for (let row = 0; row < Math.min(stripsPerPage, ROUNDS * kinds.length); row++) {
    const strip: number[] = [];
    for (let place = 0; place < patchesPerStrip; place++) {
      const { name, channel, tone } = kinds[(4 * place + row) % kinds.length];
      const values = [0, 0, 0, 0];
      values[channel] = tone;
      strip.push(names.length);
      pushPatch(device, names, values, name);
    }
    strips.push(strip);
  }
  return {
    device: Float64Array.from(device),
    names,
    layout: { paper, pages: dealStrips(strips, stripsPerPage) },
  };
}
