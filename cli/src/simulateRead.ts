import {
  channelCount,
  channelNames,
  drivenByInks,
  drivenByLight,
  sameProcess,
} from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { layoutFromColumns } from '@melto/core/charts/layoutColumns';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { labToDevice } from '@melto/core/icc/profileTransform';
import { SIMULATED_IDS, simulatedDevice } from '@melto/simulator/devices';
import { simulateSheets } from '@melto/simulator/simulateSheets';
import type { SimulatedFault } from '@melto/simulator/simulateSheets';
import { readCurves } from './curves.ts';
import { readZones } from './evenness.ts';
import { deviceOf, oneOf, readPatchFile, report, wholeNumber, writePatchFile } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface SimulateReadOptions {
  readonly device: string;
  readonly stock: string;
  readonly printMode?: string;
  readonly curves?: string;
  readonly zones?: string;
  readonly chart: string;
  readonly seed: string;
  readonly mode: string;
  readonly noise: string;
  readonly fault?: string;
  readonly side: string;
  readonly profile?: string;
  readonly out: string;
  readonly json?: boolean;
}

export function simulateRead(options: SimulateReadOptions): void {
  const device = simulatedDevice(oneOf(options.device, '--device', SIMULATED_IDS));
  const stock = oneOf(options.stock, '--stock', device.stocks);
  const printMode = oneOf(options.printMode ?? device.modes[0], '--print-mode', device.modes);
  const mode = oneOf(options.mode, '--mode', ['m0', 'm1', 'm2']).toUpperCase() as 'M0' | 'M1' | 'M2';
  const noise = oneOf(options.noise, '--noise', ['instrument', 'accuracy']);
  const side = oneOf(options.side, '--side', ['printing', 'wrong']);
  const seed = wholeNumber(options.seed, '--seed', 0, 0xffffffff);
  const set = readPatchFile(options.chart);
  if (drivenByLight(device.process) && options.curves !== undefined)
    throw new UsageError(`--curves: ${device.name} has no front end for curves`);
  const curves =
    options.curves === undefined ? undefined : readCurves(options.curves, channelNames(device.process));
  if (drivenByLight(device.process) && options.zones !== undefined)
    throw new UsageError(`--zones: ${device.name} has no zones`);
  const zones = options.zones === undefined ? undefined : readZones(options.zones);
  if (drivenByInks(device.process) && options.profile !== undefined)
    throw new UsageError(`--profile: charts are converted for RGB devices only so far`);
  const values =
    options.profile === undefined
      ? ownDevice(options.chart, set, device.process)
      : throughProfile(options.chart, set, options.profile);
  const layout =
    (set.layout === undefined ? undefined : layoutFromColumns(set.layout, 'a4')) ??
    layoutChart(device.process, values, 'a4', seed);
  const { spectra, grid } = simulateSheets({
    device: device.id,
    stock,
    printMode,
    side,
    seed,
    mode,
    noise,
    fault: parseFault(options.fault, device.conversions),
    curves,
    zones,
    values,
    layout,
  });
  writePatchFile(options.out, {
    ...set,
    process: device.process,
    device: values,
    xyz: undefined,
    lab: undefined,
    spectra: { grid, values: spectra },
    conditions: { mode, filter: 'none', instrument: 'simulated strip reader' },
    originator: 'Melto',
  });
  report(options.json, { patches: set.ids.length, out: options.out }, [
    `${set.ids.length} patches read: ${options.out}`,
  ]);
}

function ownDevice(path: string, set: PatchSet, process: Process): Float64Array {
  const found = deviceOf(path, set);
  // A file that counts its inks has them in the device's own order.
  const counted = found.process.channels.every(({ name }) => name.startsWith('ink '));
  if (counted && channelCount(found.process) === channelCount(process) && drivenByInks(process))
    return found.device;
  if (!sameProcess(found.process, process))
    throw new UsageError(`${path}: found ${found.process.name} values, expected ${process.name}`);
  return found.device;
}

function throughProfile(chart: string, set: PatchSet, path: string): Float64Array {
  if (set.lab === undefined)
    throw new UsageError(
      `${chart}: found no Lab values, expected LAB_L, LAB_A, LAB_B to convert through ${path}`,
    );
  const transform = labToDevice(readProfile(path), 'relative');
  if (!transform.ok) throw new UsageError(`${path}: no table from Lab to device values`);
  const out = new Float64Array(set.lab.length);
  transform.value.apply(set.lab, out);
  return out.map((value) => Math.round(value * 255) / 255);
}

function parseFault(text: string | undefined, conversions: readonly string[]): SimulatedFault | undefined {
  if (text === undefined) return undefined;
  const [kind, detail] = text.split(':');
  const known = oneOf(kind, '--fault', [
    'colour-management-on',
    'curves-on',
    'curves-missing',
    'strips-swapped',
    'strip-backwards',
  ]);
  if (known === 'curves-on') return { kind: 'front-end', does: 'factory curves' };
  if (known === 'curves-missing') return { kind: 'front-end', does: 'no curves' };
  if (known !== 'colour-management-on') return { kind: known };
  return {
    kind: known,
    conversion: detail === undefined ? conversions[0] : oneOf(detail, '--fault', conversions),
  };
}
