import { layoutColumns } from '@melto/core/charts/layoutColumns';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { houseDay } from '@melto/core/time/houseTime';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { channelCount, drivenByInks } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { rasterPixels } from '@melto/paper/chartRaster';
import type { ChartPage, PageTag } from '@melto/paper/chartPage';
import { findPrint, findSheet } from '@melto/store/prints';
import type { Context } from '../kernel/context.ts';
import type { Download } from '../kernel/download.ts';
import { houseZone } from '../kernel/houseZone.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { conditionName, conditionOf } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { loadChart } from './chart.ts';
import type { LoadedChart } from './chart.ts';
import { inkSource, jobTold } from './sourceProfiles.ts';

/** Pixels of a page that a server draws at once. */
const MOST_PIXELS = 60_000_000;

export type PageFormat = 'pdf' | 'tiff' | 'png';

/** What stands on the pages of a chart beside its patches. */
interface PageWords {
  /** Code of the print, or of the chart where it is on its own; its pages add their number. */
  readonly code: string;
  readonly dateMs: number;
  readonly zone: string;
  readonly process: Process;
  readonly words?: string;
  /** What its values are meant by, where the file says so. */
  readonly tag?: PageTag;
}

function chartPages(
  chart: LoadedChart,
  condition: ConditionRow,
  values: Float64Array,
  { code, dateMs, zone, process, words, tag }: PageWords,
): ChartPage[] {
  return chart.layout.pages.map((strips, index) => ({
    paper: chart.paper,
    process,
    tag,
    needs: chart.needs,
    cut: chart.purpose === 'wedge' || chart.purpose === 'job',
    words,
    strips: strips.map((rows) => gatherRows(values, rows, channelCount(process))),
    sheetCode: `${code}-${index + 1}`,
    title: chart.title,
    condition: conditionName(condition),
    date: houseDay(dateMs, zone),
    page: index + 1,
    pages: chart.layout.pages.length,
  }));
}

/** Renders pages; pixels are one page a file. */
async function renderPages(
  { drawFile }: Pick<Context, 'drawFile'>,
  pages: readonly ChartPage[],
  format: PageFormat,
  page: number,
  code: string,
  dateMs: number,
): Promise<Download> {
  if (format === 'pdf')
    return {
      name: `${code}.pdf`,
      mediaType: 'application/pdf',
      content: await drawFile({ kind: 'chart', pages, madeMs: dateMs }),
    };
  const chosen = pages[page - 1];
  if (chosen === undefined) throw notFound(`page ${page} of this chart`);
  if (rasterPixels(chosen) > MOST_PIXELS)
    throw new Problem(
      'bad-input',
      `A page of ${chosen.paper} mm is too large for pixels.`,
      'Take the PDF.',
      'format',
    );
  if (format === 'png' && drivenByInks(chosen.process))
    throw new Problem('bad-input', 'Pages of inks have no PNG.', 'Take the PDF or the TIFF.', 'format');
  return {
    name: `${chosen.sheetCode}.${format}`,
    mediaType: `image/${format}`,
    content: await drawFile({ kind: 'raster', page: chosen, format }),
  };
}

/** The pages of a print as a file: as they were sent, or with the values that a wedge asks for. */
export async function printFile(
  context: Context,
  sheetCode: string,
  format: PageFormat | 'txt',
  asked = false,
): Promise<Download> {
  const sheet = await findSheet(context.database, sheetCode);
  if (sheet === undefined) throw notFound(`sheet ${sheetCode}`);
  const print = await findPrint(context.database, sheet.printId);
  if (print === undefined) throw notFound(`print of ${sheetCode}`);
  const [chart, condition, zone] = await Promise.all([
    loadChart(context, print.chartId),
    conditionOf(context, print.conditionId),
    houseZone(context),
  ]);
  if (format === 'txt')
    return sentValues(sheetCode, chart, sheet.page, condition.process, print.deviceValues);
  const { device, process } = chart.set;
  const words = { code: print.code, dateMs: print.printedMs, zone };
  if (chart.purpose === 'job') {
    if (device === undefined || process === undefined) throw new Error(`chart of ${sheetCode} has no values`);
    const { tag, name } = await tagOfJob(context, print.judgedBy);
    const tagged = { ...words, process, tag, words: `${name}: convert it as every job` };
    return renderPages(
      context,
      chartPages(chart, condition, device, tagged),
      format,
      sheet.page,
      print.code,
      print.printedMs,
    );
  }
  if (asked && (chart.purpose !== 'wedge' || device === undefined || process === undefined))
    throw new Problem(
      'bad-input',
      `${sheetCode} is no control wedge.`,
      'Take the sheet as it was sent.',
      'asked',
    );
  const pages =
    asked && device !== undefined && process !== undefined
      ? chartPages(chart, condition, device, {
          ...words,
          process,
          words: 'place at 100 %, treat as the page beside it',
        })
      : chartPages(chart, condition, print.deviceValues, { ...words, process: condition.process });
  return renderPages(context, pages, format, sheet.page, print.code, print.printedMs);
}

/** What the values of a job are meant by, and how it is called. */
async function tagOfJob(
  context: Context,
  judgedBy: string | null,
): Promise<{ readonly tag: PageTag; readonly name: string }> {
  const { sourceId } = judgedBy === null ? {} : jobTold(judgedBy);
  if (sourceId === undefined) return { tag: 'sRGB', name: 'sRGB' };
  const { name, content } = await inkSource(context, sourceId);
  return { tag: { profile: content }, name };
}

/** What was sent to the device for one page, for a measuring program to know its patches by. */
function sentValues(
  sheetCode: string,
  { set, layout, title }: LoadedChart,
  page: number,
  process: Process,
  sent: Float64Array,
): Download {
  const rows = (layout.pages[page - 1] ?? []).flat();
  const whole = layoutColumns(layout);
  const ofRows = (column: Int32Array): Int32Array => Int32Array.from(rows, (row) => column[row]);
  const text = writeCgats(
    patchSetToCgats({
      ids: rows.map((row) => set.ids[row]),
      names: set.names === undefined ? undefined : rows.map((row) => set.names?.[row] ?? ''),
      process,
      device: gatherRows(sent, rows, channelCount(process)),
      layout: { page: ofRows(whole.page), strip: ofRows(whole.strip), place: ofRows(whole.place) },
      conditions: {},
      title: `${sheetCode}: ${title}`,
      originator: 'Melto',
      notes: [],
    }),
  );
  return { name: `${sheetCode}.txt`, mediaType: 'text/plain', content: Buffer.from(text) };
}

/** The pages of a chart that was not printed by Melto. */
export async function chartFile(
  context: Context,
  chartId: number,
  format: PageFormat,
  page: number,
): Promise<Download> {
  const chart = await loadChart(context, chartId);
  const condition = await conditionOf(context, chart.conditionId);
  const { device, process = condition.process } = chart.set;
  if (device === undefined)
    throw new Problem('conflict', 'This chart has no device values.', 'Print it through a profile.');
  const code = `${condition.deviceCode}-C${chartId}`;
  const zone = await houseZone(context);
  return renderPages(
    context,
    chartPages(chart, condition, device, { code, dateMs: chart.madeMs, zone, process }),
    format,
    page,
    code,
    chart.madeMs,
  );
}
