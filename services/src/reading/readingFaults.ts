import { neutralDensity } from '@melto/core/density/density';
import { detectFaults } from '@melto/core/faults/detectFaults';
import type { Fault } from '@melto/core/faults/fault';
import type { LoadedReading } from './loadReading.ts';

/** What the data of a reading say may be wrong, as far as it goes. */
export function faultsOf(loaded: LoadedReading): Fault[] {
  const { rows, chart, set, xyz, lab, condition } = loaded;
  if (set.device === undefined || rows.length === 0) return [];
  const early = earlyFault(loaded);
  // How a job was converted is what its picture is to tell; what was sent is no measure of it.
  if (chart.purpose === 'job') return early;
  const position = new Map(rows.map((row, i) => [row, i]));
  const strips = chart.layout.pages
    .flat()
    .map((strip) => strip.map((row) => position.get(row)))
    .filter((strip): strip is number[] => strip.every((row) => row !== undefined));
  const density = Float64Array.from({ length: rows.length }, (_, i) => neutralDensity(xyz[3 * i + 1]));
  const faults = detectFaults({
    process: condition.process,
    device: set.device,
    xyz,
    spectra: set.spectra,
    lab,
    density,
    strips,
    finish: condition.finish,
    ramps: loaded.ramps,
  });
  return [...faults, ...early];
}

/** Strips that stand and were read before the print had rested: read again after it they clear. */
export function earlyStrips(
  { source }: Pick<LoadedReading['reading'], 'source'>,
  { restUntilMs }: Pick<LoadedReading['print'], 'restUntilMs'>,
  strips: LoadedReading['stripsRead'],
): LoadedReading['stripsRead'] {
  // A file does not tell when its sheet was measured.
  return source === 'desk' ? strips.filter(({ readMs }) => readMs < restUntilMs) : [];
}

function earlyFault({ reading, print, chart, stripsRead }: LoadedReading): Fault[] {
  const early = earlyStrips(reading, print, stripsRead);
  if (early.length === 0) return [];
  const before = chart.layout.pages.map((_, page) => chart.layout.pages.slice(0, page).flat().length);
  const strips = early.map(({ page, strip }) => before[page - 1] + strip);
  const left = Math.max(...early.map(({ readMs }) => print.restUntilMs - readMs));
  return [
    {
      kind: 'read-early',
      confidence: 1,
      // All of them is the sheet.
      strips: early.length === stripsRead.length ? [] : strips,
      figures: { minutes: Math.round(left / 60_000) },
    },
  ];
}

/** Faults that were found when a reading was completed; none where it is not. */
export function keptFaults(faults: string | null): readonly Fault[] {
  return faults === null ? [] : (JSON.parse(faults) as Fault[]);
}
