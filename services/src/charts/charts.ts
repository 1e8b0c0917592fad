import { layoutChart } from '@melto/core/charts/layoutChart';
import type { ChartLayout } from '@melto/core/charts/layoutChart';
import { layoutColumns, layoutFromColumns } from '@melto/core/charts/layoutColumns';
import { READER_NEEDS, SHORT_CHECK_NEEDS } from '@melto/core/charts/pageGeometry';
import type { InstrumentNeeds, PaperName, ReaderKind } from '@melto/core/charts/pageGeometry';
import { CMYK_CHART_PATCHES, makeCmykChart } from '@melto/core/charts/cmykChart';
import type { NamedPatches } from '@melto/core/charts/namedPatches';
import { inputTotalOf } from '@melto/core/limits/totalInk';
import { genericPressLab } from '@melto/core/charts/genericPress';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { makeRgbChart, RGB_CHART_PATCHES } from '@melto/core/charts/rgbChart';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { channelCount } from '@melto/core/device/deviceSpace';
import type { DeviceSpace } from '@melto/core/device/deviceSpace';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { unwrap } from '@melto/core/result';
import { chartPdf } from '@melto/paper/chartPdf';
import { chartRaster } from '@melto/paper/chartRaster';
import type { ChartPage } from '@melto/paper/chartPage';
import type { Sql } from '@melto/store/database';
import { listHeads } from '@melto/store/results';
import { curvesAmong, curvesOfResult } from '../ledger/curvesInForce.ts';
import { findChart, insertChart, listCharts } from '@melto/store/charts';
import type { ChartPurpose, ChartRow } from '@melto/store/charts';
import { domainNow } from '../kernel/clock.ts';
import { profileInForce } from '../profile/profiles.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';

export type { ChartRow };

/** A chart with its patches and where they stand on paper. */
export interface LoadedChart extends ChartRow {
  readonly set: PatchSet;
  readonly layout: ChartLayout;
  readonly needs: InstrumentNeeds;
}

export interface NewChart {
  readonly patches: number;
  readonly paper: PaperName;
}

export async function createChart(
  services: Services,
  conditionId: number,
  input: NewChart,
): Promise<{ readonly id: number }> {
  return { id: await storeChart(services, await profilingChart(services, conditionId, input)) };
}

/** A profiling chart, not stored yet. */
export async function profilingChart(
  services: Services,
  conditionId: number,
  input: NewChart,
  onProgress: (fraction: number) => void = () => {},
): Promise<ChartToStore> {
  const condition = await conditionOf(services, conditionId);
  const rgb = condition.space === 'rgb';
  const { least, most } = rgb ? RGB_CHART_PATCHES : CMYK_CHART_PATCHES;
  if (!Number.isInteger(input.patches) || input.patches < least || input.patches > most)
    throw new Problem(
      'bad-input',
      `A chart has ${least} to ${most} patches.`,
      'Give a whole number between them.',
      'patches',
    );
  const seed = services.seed();
  const { device, names } = rgb
    ? rgbChart(input.patches, seed)
    : makeCmykChart(
        input.patches,
        seed,
        await totalInkAtInput(services, conditionId),
        await knownColours(services, conditionId),
        onProgress,
      );
  return {
    conditionId,
    purpose: 'profile',
    title: `${rgb ? 'RGB' : 'CMYK'} ${input.patches}`,
    paper: input.paper,
    seed,
    device,
    names,
    layout: layoutChart(condition.space, device, input.paper, seed),
    space: condition.space,
  };
}

/** What is known of the colours of a device with inks: the profile in force, else a generic press. */
async function knownColours(
  services: Services,
  conditionId: number,
): Promise<(device: ArrayLike<number>) => ArrayLike<number>> {
  const known = await profileInForce(services, conditionId);
  if (known === undefined) return genericPressLab;
  const table = unwrap(deviceToLab(known.profile, 'absolute'));
  const lab = new Float64Array(3);
  return (device) => {
    table.apply(device, lab);
    return lab;
  };
}

function rgbChart(patches: number, seed: number): NamedPatches {
  const { device, roles } = makeRgbChart(patches, seed);
  return { device, names: roles };
}

/** Total ink that documents may ask for: at the input of the curves in force, where a limit is set. */
export async function totalInkAtInput(services: Services, conditionId: number): Promise<number> {
  const heads = await listHeads(services.database, conditionId);
  const limits = heads.find(({ link }) => link === 'limits');
  const curves = curvesAmong(heads);
  if (limits === undefined) return DEFAULT_TOTAL_INK;
  const { total } = JSON.parse(limits.summary) as { total: number };
  if (curves === undefined) return total;
  return inputTotalOf(total, await curvesOfResult(services.database, curves.id));
}

/** Where nothing was measured: what sheet-fed presses take. */
const DEFAULT_TOTAL_INK = 3;

export interface ChartToStore {
  readonly conditionId: number;
  readonly purpose: ChartPurpose;
  readonly title: string;
  readonly paper: PaperName;
  readonly seed: number;
  readonly device: Float64Array;
  readonly names: readonly string[];
  readonly layout: ChartLayout;
  readonly lab?: Float64Array;
  readonly space?: DeviceSpace;
  readonly reader?: ReaderKind;
  readonly copies?: number;
}

export async function storeChart(
  services: Services,
  chart: ChartToStore,
  sql: Sql = services.database,
): Promise<number> {
  const reference = writeCgats(
    patchSetToCgats({
      ids: chart.names.map((_, i) => String(i + 1)),
      names: chart.names,
      space: chart.space ?? 'rgb',
      device: chart.device,
      lab: chart.lab,
      layout: layoutColumns(chart.layout),
      conditions: {},
      title: chart.title,
      originator: 'Melto',
      notes: [],
    }),
  );
  const { conditionId, purpose, title, paper, seed } = chart;
  return insertChart(
    sql,
    {
      conditionId,
      purpose,
      title,
      patches: chart.names.length,
      paper,
      seed,
      reader: chart.reader ?? 'strip',
      copies: chart.copies ?? 1,
      madeMs: await domainNow(services),
      reference,
    },
    LOCAL_PERSON,
  );
}

export async function loadChart(services: Services, id: number): Promise<LoadedChart> {
  const row = await findChart(services.database, id);
  if (row === undefined) throw notFound(`chart ${id}`);
  const { reference, ...chart } = row;
  const set = unwrap(readPatchSet(reference));
  const layout = set.layout === undefined ? undefined : layoutFromColumns(set.layout, chart.paper);
  if (layout === undefined) throw new Error(`chart ${id} has no layout`);
  return {
    ...chart,
    set,
    layout,
    needs: chart.purpose === 'short-check' ? SHORT_CHECK_NEEDS : READER_NEEDS[chart.reader],
  };
}

export function chartsOf(services: Services, condition: number): Promise<ChartRow[]> {
  return listCharts(services.database, condition);
}

/** The pages of a chart, for a print (its codes) or on their own. */
export function chartPages(
  chart: LoadedChart,
  condition: ConditionRow,
  code: string,
  values: Float64Array,
  dateMs: number,
  as: { readonly space?: DeviceSpace; readonly words?: string } = {},
): ChartPage[] {
  const space = as.space ?? condition.space;
  return chart.layout.pages.map((strips, index) => ({
    paper: chart.paper,
    space,
    needs: chart.needs,
    cut: chart.purpose === 'wedge',
    words: as.words,
    strips: strips.map((rows) => gatherRows(values, rows, channelCount(space))),
    sheetCode: `${code}-${index + 1}`,
    title: chart.title,
    condition: `${condition.device} / ${condition.stock} / ${condition.mode}`,
    date: new Date(dateMs).toISOString().slice(0, 10),
    page: index + 1,
    pages: chart.layout.pages.length,
  }));
}

export type ChartFormat = 'pdf' | 'tiff' | 'png' | 'txt';

export interface Download {
  readonly name: string;
  readonly mediaType: string;
  readonly content: Uint8Array;
}

/** Renders pages; pixels are one page a file. */
export async function renderPages(
  pages: readonly ChartPage[],
  format: 'pdf' | 'tiff' | 'png',
  page: number,
  code: string,
  dateMs: number,
): Promise<Download> {
  if (format === 'pdf')
    return { name: `${code}.pdf`, mediaType: 'application/pdf', content: await chartPdf(pages, dateMs) };
  if (format === 'png' && pages[0]?.space !== 'rgb')
    throw new Problem('bad-input', 'Pages of inks have no PNG.', 'Take the PDF or the TIFF.', 'format');
  const chosen = pages[page - 1];
  if (chosen === undefined) throw notFound(`page ${page} of this chart`);
  return {
    name: `${chosen.sheetCode}.${format}`,
    mediaType: `image/${format}`,
    content: await chartRaster(chosen, format),
  };
}

export async function chartReference(services: Services, id: number): Promise<Download> {
  const row = await findChart(services.database, id);
  if (row === undefined) throw notFound(`chart ${id}`);
  return {
    name: `chart-${id}.txt`,
    mediaType: 'text/plain',
    content: new TextEncoder().encode(row.reference),
  };
}
