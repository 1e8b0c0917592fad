import { patchesOf } from '@melto/core/press/colourBar';
import { labAt } from '@melto/core/colour/labAt';
import { labToScreen } from '@melto/core/colour/srgb';
import { PROCESS_INKS } from '@melto/core/tone/toneMeasure';
import type { RunPlan } from '@melto/core/press/runAdvice';
import { drawBar } from '@melto/paper/barPage';
import type { NamedInk } from '@melto/paper/chartPage';
import type { Context } from '../kernel/context.ts';
import { fileName } from '../kernel/download.ts';
import type { Download } from '../kernel/download.ts';
import { runOf } from './runs.ts';

const NAMES = ['Cyan', 'Magenta', 'Yellow', 'Black'] as const;

/** The colour bar of a run as a PDF whose colours are the inks by name. */
export async function barFile(context: Context, runId: number): Promise<Download> {
  const { plan, jobNumber, title, madeMs } = await runOf(context, runId);
  const { bar, units } = plan;
  const words = `${jobNumber} · ${title} · ${units.map(({ ink }) => ink).join(' ')} · ${bar.patches.length} patches`;
  const content = await context.drawFile({
    ...{ kind: 'drawn', drawings: [drawBar(bar, words)], title: `Colour bar, ${words}`, madeMs },
    tag: { inks: namedInks(plan) },
  });
  return { name: `${fileName(`colour bar ${jobNumber}`)}.pdf`, content, mediaType: 'application/pdf' };
}

/** Inks as files name them; spot colours with process inks near to their aim. */
export function namedInks({ units, bar, aims }: Omit<RunPlan, 'settings'>): NamedInk[] {
  return units.map(({ ink }, unit) => {
    const channel = PROCESS_INKS.indexOf(ink);
    if (channel >= 0) {
      const cmyk = [0, 0, 0, 0];
      cmyk[channel] = 1;
      return { name: NAMES[channel], cmyk: cmyk as unknown as NamedInk['cmyk'] };
    }
    const [solid] = patchesOf(bar, 'solid', unit);
    const { rgb } = labToScreen(labAt(aims.lab, solid));
    const [c, m, y] = rgb.map((value) => 1 - value / 255);
    return { name: ink, cmyk: [c, m, y, 0] };
  });
}
