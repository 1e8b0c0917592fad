import { CMYK, inkProcess, sameProcess } from '@melto/core/device/process';
import { CURLEW, CURLEW_MODES } from './data/curlew.ts';
import { HERON, HERON_MODES } from './data/heron.ts';
import { OSPREY, OSPREY_MODES } from './data/osprey.ts';
import { REDSHANK, REDSHANK_MODES } from './data/redshank.ts';
import { TERN, TERN_MODES } from './data/tern.ts';
import { WREN } from './data/wren.ts';
import { convertManyInks, MANY_INK_CONVERSIONS } from './manyInkConversions.ts';
import { convertForPress, PRESS_CONVERSIONS } from './pressConversions.ts';
import { factoryCurves } from './factoryCurves.ts';
import { splitTone } from './lightInkSplit.ts';
import type { WrenMode } from './rgbDriver.ts';
import type { SimulatedDevice } from './simulatedDevice.ts';
import { WREN_INKS } from './wrenTruth.ts';
import { convertForWren, WREN_CONVERSIONS } from './wrenConversions.ts';

const WREN_DEVICE: SimulatedDevice = {
  id: 'wren',
  name: 'Wren',
  code: 'WRN',
  kind: 'pigment inkjet with an RGB driver',
  ...WREN_INKS,
  inkSet: 'Pigment four',
  modes: Object.keys(WREN.modes),
  stocks: ['quay-proof-200', 'chalk-rag-310', 'lantern-gloss-150'],
  conversions: Object.keys(WREN_CONVERSIONS),
  convert: (name, stock, mode, values) => convertForWren(name, stock, mode as WrenMode, values),
};

/** A printer of inks whose front end passes values through curves, and otherwise straight to the inks. */
function press(
  device: Pick<SimulatedDevice, 'id' | 'name' | 'code' | 'kind' | 'inkSet' | 'printer' | 'stocks'>,
  modes: Readonly<Record<string, { readonly inkScale: readonly number[] }>>,
  process = CMYK,
  /** Amounts of the printer's inks for the values of its channels; one each where nothing is told. */
  split: (values: readonly number[]) => readonly number[] = (values) => values,
): SimulatedDevice {
  const whole: SimulatedDevice = {
    ...device,
    process,
    modes: Object.keys(modes),
    conversions: Object.keys(sameProcess(process, CMYK) ? PRESS_CONVERSIONS : MANY_INK_CONVERSIONS),
    inks(values, at, mode) {
      const { inkScale } = modes[mode];
      const own = process.channels.map((_, i) => Math.min(1, Math.max(0, values[at + i])));
      return split(own).map((amount, i) => amount * inkScale[i]);
    },
    convert: (name, stock, mode, values) =>
      sameProcess(process, CMYK)
        ? convertForPress(whole, name, stock, mode, values)
        : convertManyInks(process, name, values),
    factoryCurves: (stock, mode) => factoryCurves(whole, stock, mode),
  };
  return whole;
}

export const SIMULATED_DEVICES: readonly SimulatedDevice[] = [
  WREN_DEVICE,
  press(
    {
      id: 'heron',
      name: 'Heron',
      code: 'HRN',
      kind: 'sheet-fed toner press',
      inkSet: 'Toner four',
      printer: HERON,
      stocks: ['lantern-gloss-150', 'marsh-silk-130', 'fenland-smooth-120'],
    },
    HERON_MODES,
  ),
  press(
    {
      id: 'osprey',
      name: 'Osprey',
      code: 'OSP',
      kind: 'four-unit offset press, 12 ink zones',
      inkSet: 'Process four',
      printer: OSPREY,
      stocks: ['lantern-gloss-150', 'marsh-silk-130', 'fenland-smooth-120'],
    },
    OSPREY_MODES,
  ),
  press(
    {
      id: 'tern',
      name: 'Tern',
      code: 'TRN',
      kind: 'wide-format inkjet with orange and green',
      inkSet: 'Pigment six',
      printer: TERN,
      stocks: ['quay-proof-200', 'lantern-gloss-150', 'chalk-rag-310'],
    },
    TERN_MODES,
    inkProcess(['C', 'M', 'Y', 'K', 'O', 'G']),
  ),
  press(
    {
      id: 'curlew',
      name: 'Curlew',
      code: 'CRL',
      kind: 'packaging press with orange, green and violet',
      inkSet: 'Process seven',
      printer: CURLEW,
      stocks: ['lantern-gloss-150', 'marsh-silk-130'],
    },
    CURLEW_MODES,
    inkProcess(['C', 'M', 'Y', 'K', 'O', 'G', 'V']),
  ),
  press(
    {
      id: 'redshank',
      name: 'Redshank',
      code: 'RSK',
      kind: 'photo inkjet whose front end splits light cyan and light magenta',
      inkSet: 'Photo six',
      printer: REDSHANK,
      stocks: ['lantern-gloss-150', 'quay-proof-200', 'chalk-rag-310'],
    },
    REDSHANK_MODES,
    CMYK,
    ([c, m, y, k]) => {
      const [lightC, fullC] = splitTone(c);
      const [lightM, fullM] = splitTone(m);
      return [fullC, fullM, y, k, lightC, lightM];
    },
  ),
];

/** Devices of C, M, Y, K whose values are amounts of their inks; a front end that splits light inks has tones of its own. */
export const DIRECT_PRESSES: readonly SimulatedDevice[] = SIMULATED_DEVICES.filter(
  ({ process, printer }) => sameProcess(process, CMYK) && Object.keys(printer.inks).length === 4,
);

/** The printer of Redshank behind a front end that leaves its light inks to whoever sends values; not among those to choose from. */
const OPEN_REDSHANK: SimulatedDevice = press(
  {
    id: 'open-redshank',
    name: 'Redshank, open',
    code: 'RSO',
    kind: 'photo inkjet with light inks as channels of their own',
    inkSet: 'Photo six',
    printer: REDSHANK,
    stocks: ['lantern-gloss-150', 'quay-proof-200', 'chalk-rag-310'],
  },
  REDSHANK_MODES,
  inkProcess(['C', 'M', 'Y', 'K', 'LC', 'LM']),
);

const KNOWN = [...SIMULATED_DEVICES, OPEN_REDSHANK];
/** Ids of all devices that `simulatedDevice` knows. */
export const SIMULATED_IDS: readonly string[] = KNOWN.map(({ id }) => id);

/** A device by its id; throws where there is none. */
export function simulatedDevice(id: string): SimulatedDevice {
  const device = KNOWN.find((other) => other.id === id);
  if (device === undefined) throw new RangeError(`no simulated device "${id}"`);
  return device;
}
