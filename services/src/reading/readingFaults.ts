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

function earlyFault({ reading, print }: LoadedReading): Fault[] {
  const minutes = Math.round((print.restUntilMs - reading.startedMs) / 60_000);
  return reading.early ? [{ kind: 'read-early', confidence: 1, strips: [], figures: { minutes } }] : [];
}

/** Faults that were found when a reading was completed; none where it is not. */
export function keptFaults(faults: string | null): readonly Fault[] {
  return faults === null ? [] : (JSON.parse(faults) as Fault[]);
}
