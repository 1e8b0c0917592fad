import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { repeatability } from '@melto/core/characterise/repeatability';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { neutralDensity } from '@melto/core/density/density';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { channelCount } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import type { Fault } from '@melto/core/faults/fault';
import { largest } from '@melto/core/numerics/statistics';
import type { ErrorSummary } from '@melto/core/numerics/statistics';
import { listCompleteReadings, listReadings } from '@melto/store/readings';
import type { ReadingOfCondition } from '@melto/store/readings';
import type { ChartPurpose } from '@melto/store/charts';
import type { Page } from '@melto/store/page';
import type { ListAsked } from '../kernel/page.ts';
import type { Context } from '../kernel/context.ts';
import type { Download } from '../kernel/download.ts';
import { servedLink } from '../ledger/links.ts';
import type { LinkName } from '../ledger/links.ts';
import { loadReading } from './loadReading.ts';
import { faultsOf } from './readingFaults.ts';

export type { ReadingOfCondition };

/** A reading as its page shows it. */
export interface ReadingView {
  readonly id: number;
  readonly process: Process;
  readonly code: string;
  readonly title: string;
  readonly purpose: ChartPurpose;
  /** Link of the chain that a reading of this chart serves. */
  readonly serves: LinkName;
  readonly conditionId: number;
  readonly mode: string;
  readonly instrument: string | null;
  readonly source: string;
  readonly startedMs: number;
  readonly finishedMs: number | null;
  readonly withdrawnMs: number | null;
  readonly faults: readonly Fault[];
  readonly dmax: number;
  readonly paper: readonly number[] | null;
  readonly repeatability: ErrorSummary | null;
  readonly grid: { readonly startNm: number; readonly stepNm: number; readonly count: number } | null;
  readonly pages: readonly (readonly (readonly number[])[])[];
  readonly patches: readonly PatchView[];
}

export interface PatchView {
  readonly row: number;
  readonly id: string;
  readonly role: string;
  readonly device: readonly number[];
  readonly lab: readonly number[];
  readonly xyz: readonly number[];
  readonly spectrum: readonly number[] | null;
}

const round = (value: number, places: number): number => Math.round(value * 10 ** places) / 10 ** places;

export async function readingView(context: Context, id: number): Promise<ReadingView> {
  const loaded = await loadReading(context, id);
  const { reading, print, chart, set, xyz, lab, rows } = loaded;
  const device = set.device ?? new Float64Array(0);
  const { process } = loaded.condition;
  const channels = channelCount(process);
  const paper = meanPaperXyz(process, device, xyz);
  const paperLab = new Float64Array(3);
  if (paper !== undefined) xyzRowsToLab(paper, WHITE_D50_MEASURED, paperLab);
  const bands = set.spectra?.grid.count ?? 0;
  return {
    id,
    process,
    code: print.code,
    title: chart.title,
    purpose: chart.purpose,
    serves: servedLink(chart.purpose, chart.kind),
    conditionId: print.conditionId,
    mode: reading.mode,
    instrument: reading.instrument,
    source: reading.source,
    startedMs: reading.startedMs,
    finishedMs: reading.finishedMs,
    withdrawnMs: reading.withdrawnMs,
    faults: faultsOf(loaded),
    dmax: largest(rows.map((_, i) => neutralDensity(xyz[3 * i + 1]))),
    paper: paper === undefined ? null : [...paperLab],
    repeatability: repeatability(device, channels, xyz) ?? null,
    grid: set.spectra?.grid ?? null,
    pages: chart.layout.pages,
    patches: rows.map((row, i) => ({
      row,
      id: set.ids[i],
      role: set.names?.[i] ?? '',
      device: [...device.subarray(channels * i, channels * (i + 1))].map((v) => round(v * process.scale, 2)),
      lab: [...lab.subarray(3 * i, 3 * i + 3)].map((v) => round(v, 4)),
      xyz: [...xyz.subarray(3 * i, 3 * i + 3)].map((v) => round(v, 4)),
      spectrum:
        set.spectra === undefined
          ? null
          : [...set.spectra.values.subarray(i * bands, (i + 1) * bands)].map((v) => round(v, 5)),
    })),
  };
}

/** A reading beside another of the same chart. */
export interface ReadingPageView {
  readonly view: ReadingView;
  readonly other: ReadingView | undefined;
  readonly others: readonly Pick<ReadingOfCondition, 'id' | 'code' | 'mode' | 'startedMs'>[];
}

/** Latest readings that one can be laid beside. */
const OTHERS = 100;

export async function readingPage(context: Context, id: number, wanted: number): Promise<ReadingPageView> {
  const view = await readingView(context, id);
  const readings = await listCompleteReadings(context.database, view.conditionId, {
    purposes: [view.purpose],
    limit: OTHERS,
  });
  const others = readings.filter((row) => row.id !== id && row.title === view.title);
  const other = others.some((row) => row.id === wanted) ? await readingView(context, wanted) : undefined;
  return {
    view,
    other,
    others: others.map(({ id: own, code, mode, startedMs }) => ({ id: own, code, mode, startedMs })),
  };
}

const PAGE = 100;

/** Readings of a condition, the newest first. */
export function readingsOf(
  { database }: Context,
  condition: number,
  asked: ListAsked = {},
): Promise<Page<ReadingOfCondition>> {
  return listReadings(database, condition, { ...asked, limit: PAGE });
}

/** A reading as CGATS. */
export async function readingFile(context: Context, id: number): Promise<Download> {
  const { set, lab, print } = await loadReading(context, id);
  return {
    name: `${print.code}.txt`,
    mediaType: 'text/plain',
    content: new TextEncoder().encode(writeCgats(patchSetToCgats({ ...set, lab }))),
  };
}
