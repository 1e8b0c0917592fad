import { blackChannel, channelCount, CMYK, drivenByInks, sameProcess } from '@melto/core/device/process';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { layoutColumns, layoutFromColumns } from '@melto/core/charts/layoutColumns';
import { READER_NEEDS } from '@melto/core/charts/pageGeometry';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { chartPdf } from '@melto/paper/chartPdf';
import { chartRaster } from '@melto/paper/chartRaster';
import type { ChartPage, PageTag } from '@melto/paper/chartPage';
import {
  deviceOf,
  oneOf,
  paperOf,
  readPatchFile,
  report,
  wholeNumber,
  writeFile,
  writePatchFile,
} from './files.ts';
import { inkProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface ChartPagesOptions {
  readonly instrument: string;
  readonly paper: string;
  readonly code: string;
  readonly seed: string;
  readonly pdf?: string;
  readonly tiff?: string;
  readonly png?: string;
  readonly srgb?: boolean;
  readonly source?: string;
  readonly out?: string;
  readonly json?: boolean;
}

export async function chartPages(file: string, options: ChartPagesOptions): Promise<void> {
  const needs = READER_NEEDS[oneOf(options.instrument, '--instrument', ['strip', 'spot', 'sheet'])];
  const paper = paperOf(options.paper);
  if (
    options.pdf === undefined &&
    options.tiff === undefined &&
    options.png === undefined &&
    options.out === undefined
  )
    throw new UsageError('nothing to write: give --pdf, --tiff, --png or --out');
  const set = readPatchFile(file);
  const { device, process } = deviceOf(file, set);
  if (drivenByInks(process) && blackChannel(process) === undefined && options.tiff !== undefined)
    throw new UsageError(`--tiff: ${process.name} has no black for the words on the page, expected --pdf`);
  if (drivenByInks(process) && options.png !== undefined)
    throw new UsageError('--png: a chart of inks has no PNG, expected --tiff or --pdf');
  if (options.srgb === true && drivenByInks(process))
    throw new UsageError('--srgb: found inks, expected RGB values');
  if (options.source !== undefined && !sameProcess(process, CMYK))
    throw new UsageError('--source: found RGB values, expected inks that the profile is for');
  const tag: PageTag | undefined =
    options.srgb === true
      ? 'sRGB'
      : options.source === undefined
        ? undefined
        : { profile: inkProfile(options.source).bytes };
  const own = set.layout === undefined ? undefined : layoutFromColumns(set.layout, paper);
  const layout =
    own ?? layoutChart(process, device, paper, wholeNumber(options.seed, '--seed', 0, 0xffffffff), needs);
  const now = Date.now();
  const pages: ChartPage[] = layout.pages.map((strips, index) => ({
    paper,
    process,
    tag,
    needs,
    strips: strips.map((rows) => gatherRows(device, rows, channelCount(process))),
    sheetCode: `${options.code}-${index + 1}`,
    title: set.title ?? 'Chart',
    condition: '',
    date: new Date(now).toISOString().slice(0, 10),
    page: index + 1,
    pages: layout.pages.length,
  }));
  const written: string[] = [];
  const write = (path: string, content: Uint8Array): void => {
    writeFile(path, content);
    written.push(path);
  };
  if (options.pdf !== undefined) write(options.pdf, await chartPdf(pages, now));
  for (const format of ['tiff', 'png'] as const) {
    const path = options[format];
    if (path === undefined) continue;
    for (const [i, page] of pages.entries())
      write(i === 0 ? path : path.replace(/(\.[^.]*)?$/, `-${i + 1}$1`), await chartRaster(page, format));
  }
  if (options.out !== undefined) {
    writePatchFile(options.out, { ...set, layout: layoutColumns(layout) });
    written.push(options.out);
  }
  report(options.json, { pages: pages.length, written }, written);
}
