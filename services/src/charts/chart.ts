import { layoutColumns, layoutFromColumns } from '@melto/core/charts/layoutColumns';
import type { ChartLayout } from '@melto/core/charts/layoutChart';
import { needsOf, needsOfShortCheck } from '@melto/core/charts/chartForm';
import type { ChartForm } from '@melto/core/charts/chartForm';
import type { InstrumentNeeds } from '@melto/core/charts/pageGeometry';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import type { Process } from '@melto/core/device/process';
import { unwrap } from '@melto/core/result';
import { findChart, insertChart, listCharts } from '@melto/store/charts';
import type { ChartKind, ChartPurpose, ChartRow } from '@melto/store/charts';
import type { Page } from '@melto/store/page';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import type { Download } from '../kernel/download.ts';
import { notFound } from '../kernel/problem.ts';

export type { ChartRow };

/** A chart with its patches and where they stand on paper. */
export interface LoadedChart extends ChartRow {
  readonly set: PatchSet;
  readonly layout: ChartLayout;
  readonly needs: InstrumentNeeds;
}

export interface ChartToStore {
  readonly conditionId: number;
  readonly purpose: ChartPurpose;
  /** Which of its purpose it is, where there are several. */
  readonly kind?: ChartKind;
  readonly process: Process;
  readonly title: string;
  readonly form: ChartForm;
  readonly seed: number;
  readonly device: Float64Array;
  readonly names: readonly string[];
  readonly layout: ChartLayout;
  readonly lab?: Float64Array;
  readonly copies?: number;
}

export async function storeChart(context: Context, chart: ChartToStore): Promise<number> {
  const { conditionId, purpose, process, title, form, seed } = chart;
  const reference = writeCgats(
    patchSetToCgats({
      ids: chart.names.map((_, i) => String(i + 1)),
      names: chart.names,
      process,
      device: chart.device,
      lab: chart.lab,
      layout: layoutColumns(chart.layout),
      conditions: {},
      title,
      originator: 'Melto',
      notes: [],
    }),
  );
  return insertChart(context.database, {
    conditionId,
    purpose,
    kind: chart.kind ?? null,
    processName: process.name,
    title,
    patches: chart.names.length,
    paper: form.paper,
    reader: form.reader ?? 'strip',
    patchSize: form.patchSize ?? 'usual',
    seed,
    copies: chart.copies ?? 1,
    madeMs: await domainNow(context),
    reference,
  });
}

const MOST_CHARTS = 80;

/** A chart, parsed the first time it is asked for. */
export function loadChart(context: Context, id: number): Promise<LoadedChart> {
  return context.cache.keep('chart', MOST_CHARTS, context.database, id, async () => {
    const row = await findChart(context.database, id);
    if (row === undefined) throw notFound(`chart ${id}`);
    const { reference, ...chart } = row;
    const set = unwrap(readPatchSet(reference));
    const layout = set.layout === undefined ? undefined : layoutFromColumns(set.layout, chart.paper);
    if (layout === undefined) throw new Error(`chart ${id} has no layout`);
    return {
      ...chart,
      set,
      layout,
      needs: (chart.purpose === 'short-check' ? needsOfShortCheck : needsOf)(chart),
    };
  });
}

const PAGE = 100;

/** Charts of a condition, the newest first. */
export function chartsOf({ database }: Context, condition: number, after?: number): Promise<Page<ChartRow>> {
  return listCharts(database, condition, { after, limit: PAGE });
}

export async function chartReference({ database }: Context, id: number): Promise<Download> {
  const row = await findChart(database, id);
  if (row === undefined) throw notFound(`chart ${id}`);
  return {
    name: `chart-${id}.txt`,
    mediaType: 'text/plain',
    content: new TextEncoder().encode(row.reference),
  };
}
