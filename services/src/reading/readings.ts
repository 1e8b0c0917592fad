import { patchXyz } from '@melto/core/cgats/patchColours';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { neutralDensity } from '@melto/core/density/density';
import { detectFaults } from '@melto/core/faults/detectFaults';
import type { Fault } from '@melto/core/faults/fault';
import type { ExpectedRamps } from '@melto/core/faults/rampResponse';
import { repeatability } from '@melto/core/characterise/repeatability';
import { channelCount, paperValue } from '@melto/core/device/deviceSpace';
import type { DeviceSpace } from '@melto/core/device/deviceSpace';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { largest } from '@melto/core/numerics/statistics';
import type { ErrorSummary } from '@melto/core/numerics/statistics';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { findPrint } from '@melto/store/prints';
import type { PrintRow } from '@melto/store/prints';
import { findReading, listReadings, listStrips, setWithdrawn } from '@melto/store/readings';
import type { ReadingOfCondition, ReadingRow, StripRow } from '@melto/store/readings';
import { loadChart } from '../charts/charts.ts';
import type { Download, LoadedChart } from '../charts/charts.ts';
import { domainNow } from '../kernel/clock.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import type { Services } from '../kernel/context.ts';
import { expectedRamps } from '../ledger/curvesInForce.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import type { LinkName } from '../ledger/links.ts';
import { settleAround } from '../watch/settleWatch.ts';
import { isWatchWedge } from '../charts/wedgeTitles.ts';

export type { ReadingOfCondition };

/** A reading with all that is needed to compute with it. */
export interface LoadedReading {
  readonly reading: ReadingRow;
  readonly print: PrintRow;
  readonly chart: LoadedChart;
  readonly condition: ConditionRow;
  /** Rows of the chart that were read, in chart order. */
  readonly rows: readonly number[];
  /** The patches of `rows`. */
  readonly set: PatchSet;
  /** XYZ and Lab of `rows`, row-major × 3. */
  readonly xyz: Float64Array;
  readonly lab: Float64Array;
  /** What is known of the condition's single-ink ramps, where it has inks. */
  readonly ramps?: ExpectedRamps;
}

export async function loadReading(services: Services, id: number): Promise<LoadedReading> {
  const reading = await findReading(services.database, id);
  if (reading === undefined) throw notFound(`reading ${id}`);
  const print = await findPrint(services.database, reading.printId);
  if (print === undefined) throw notFound(`print ${reading.printId}`);
  const chart = await loadChart(services, print.chartId);
  const condition = await conditionOf(services, print.conditionId);
  const strips = await listStrips(services.database, id);
  return {
    ...assembleReading(reading, print, chart, condition, strips),
    ramps: await expectedRamps(services.database, print),
  };
}

/** Device values and colours of a reading, for computing in the browser. */
export async function readingPatches(
  services: Services,
  id: number,
): Promise<{ readonly device: readonly number[]; readonly xyz: readonly number[] }> {
  const { set, xyz } = await loadReading(services, id);
  return { device: [...(set.device ?? [])], xyz: [...xyz] };
}

/** A complete reading of a condition, or a refusal in words. */
export async function completeReading(
  services: Services,
  conditionId: number,
  readingId: number,
): Promise<LoadedReading> {
  const loaded = await loadReading(services, readingId);
  if (loaded.print.conditionId !== conditionId)
    throw new Problem(
      'bad-input',
      'This reading belongs to another condition.',
      'Choose a reading of this condition.',
      'readingId',
    );
  if (loaded.reading.finishedMs === null)
    throw new Problem(
      'not-ready',
      'The reading is not complete.',
      'Read the strips that are missing first.',
      'readingId',
    );
  return loaded;
}

/** Puts strips in chart order. */
export function assembleReading(
  reading: ReadingRow,
  print: PrintRow,
  chart: LoadedChart,
  condition: ConditionRow,
  strips: readonly StripRow[],
): LoadedReading {
  const byRow = new Map<number, Float64Array>();
  for (const strip of strips) {
    const rows = chart.layout.pages[strip.page - 1]?.[strip.strip - 1];
    const width = strip.kind === 'spectra' ? strip.grid.count : 3;
    rows?.forEach((row, place) => byRow.set(row, strip.values.subarray(place * width, (place + 1) * width)));
  }
  const rows = [...byRow.keys()].sort((a, b) => a - b);
  const first = strips[0];
  const width = first === undefined || first.kind === 'xyz' ? 3 : first.grid.count;
  const values = new Float64Array(rows.length * width);
  rows.forEach((row, i) => values.set(byRow.get(row) ?? [], i * width));
  const set: PatchSet = {
    ids: rows.map((row) => chart.set.ids[row]),
    names: chart.set.names === undefined ? undefined : rows.map((row) => chart.set.names?.[row] ?? ''),
    space: condition.space,
    device: gatherRows(print.deviceValues, rows, channelCount(condition.space)),
    spectra: first?.kind === 'spectra' ? { grid: first.grid, values } : undefined,
    xyz: first?.kind === 'xyz' ? values : undefined,
    conditions: {
      mode: reading.mode,
      filter: reading.mode === 'M3' ? 'polarising' : 'none',
      instrument: reading.instrument ?? undefined,
    },
    title: `${print.code}, ${chart.title}`,
    originator: 'Melto',
    created: new Date(reading.startedMs).toISOString(),
    notes: [],
  };
  const xyz = patchXyz(set) ?? new Float64Array(0);
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  return { reading, print, chart, condition, rows, set, xyz, lab };
}

/** What the data of a reading say may be wrong, as far as it goes. */
export function faultsOf(loaded: LoadedReading): Fault[] {
  const { rows, chart, set, xyz, lab, condition, reading } = loaded;
  if (set.device === undefined || rows.length === 0) return [];
  const position = new Map(rows.map((row, i) => [row, i]));
  const strips = chart.layout.pages
    .flat()
    .map((strip) => strip.map((row) => position.get(row)))
    .filter((strip): strip is number[] => strip.every((row) => row !== undefined));
  const density = Float64Array.from({ length: rows.length }, (_, i) => neutralDensity(xyz[3 * i + 1]));
  const faults = detectFaults({
    space: condition.space,
    device: set.device,
    xyz,
    spectra: set.spectra,
    lab,
    density,
    strips,
    finish: condition.finish,
    ramps: loaded.ramps,
  });
  if (reading.early)
    faults.push({
      kind: 'read-early',
      confidence: 1,
      strips: [],
      figures: { minutes: Math.round((loaded.print.restUntilMs - reading.startedMs) / 60_000) },
    });
  return faults;
}

/** A reading as its page shows it. */
export interface ReadingView {
  readonly id: number;
  readonly space: DeviceSpace;
  readonly code: string;
  readonly title: string;
  readonly purpose: string;
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

/** What charts of a purpose are for, where it is not a profile. */
const SERVES: Readonly<Record<string, ReadingView['serves']>> = {
  'short-check': 'conformity',
  wedge: 'conformity',
  ramps: 'curves',
  'near-neutral': 'balance',
  evenness: 'evenness',
};

const round = (value: number, places: number): number => Math.round(value * 10 ** places) / 10 ** places;

export async function readingView(services: Services, id: number): Promise<ReadingView> {
  const loaded = await loadReading(services, id);
  const { reading, print, chart, set, xyz, lab, rows } = loaded;
  const device = set.device ?? new Float64Array(0);
  const { space } = loaded.condition;
  const channels = channelCount(space);
  const paper = meanPaperXyz(device, channels, paperValue(space), xyz);
  const paperLab = new Float64Array(3);
  if (paper !== undefined) xyzRowsToLab(paper, WHITE_D50_MEASURED, paperLab);
  const bands = set.spectra?.grid.count ?? 0;
  const scale = space === 'rgb' ? 255 : 100;
  return {
    id,
    space,
    code: print.code,
    title: chart.title,
    purpose: chart.purpose,
    serves: isWatchWedge(chart) ? 'watch' : (SERVES[chart.purpose] ?? 'profile'),
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
      device: [...device.subarray(channels * i, channels * (i + 1))].map((v) => round(v * scale, 2)),
      lab: [...lab.subarray(3 * i, 3 * i + 3)].map((v) => round(v, 4)),
      xyz: [...xyz.subarray(3 * i, 3 * i + 3)].map((v) => round(v, 4)),
      spectrum:
        set.spectra === undefined
          ? null
          : [...set.spectra.values.subarray(i * bands, (i + 1) * bands)].map((v) => round(v, 5)),
    })),
  };
}

export function readingsOf(services: Services, condition: number): Promise<ReadingOfCondition[]> {
  return listReadings(services.database, condition);
}

/** Withdraws a reading, or takes it back; what watches say follows at once. */
export async function withdrawReading(services: Services, id: number, withdrawn: boolean): Promise<void> {
  if ((await findReading(services.database, id)) === undefined) throw notFound(`reading ${id}`);
  const atMs = withdrawn ? await domainNow(services) : null;
  await settleAround(services, id, (sql) => setWithdrawn(sql, id, atMs));
}

/** A reading as CGATS. */
export async function readingFile(services: Services, id: number): Promise<Download> {
  const { set, lab, print } = await loadReading(services, id);
  return {
    name: `${print.code}.txt`,
    mediaType: 'text/plain',
    content: new TextEncoder().encode(writeCgats(patchSetToCgats({ ...set, lab }))),
  };
}
