import type { DeviceFacts } from '@melto/core/device/deviceFacts';
import type { InkCosts } from '@melto/core/stock/inkCosts';
import type { InkKind } from '@melto/core/stock/inkKinds';
import type { StockFacts } from '@melto/core/stock/stockFacts';
import { changeInkSet, libraryInkSets } from '@melto/services/house/inkSets';
import { changeDevice, changeStock, libraryDevices, libraryStocks } from '@melto/services/house/library';
import type { Context } from '@melto/services/kernel/context';
import { makePerson, people } from '@melto/services/people/people';

const DEVICES: Readonly<Record<string, DeviceFacts>> = {
  Heron: { pages: ['330x488'], printedWidthMm: 320, curveFormats: ['link', 'csv'] },
  Tern: { pages: ['610x914'], printedWidthMm: 1600, curveFormats: ['csv', 'cgats'] },
  Curlew: { pages: ['520x740'], printedWidthMm: 640, curveFormats: ['csv', 'cgats'] },
  Redshank: { pages: ['610x914'], printedWidthMm: 610, curveFormats: ['csv', 'cgats'] },
  Wren: { pages: ['610x914'], printedWidthMm: 610 },
  Osprey: {
    ...{
      pages: ['520x740'],
      printedWidthMm: 740,
      zones: 12,
      screenPerCm: 69,
      curveFormats: ['csv', 'cgats'],
    },
  },
};
const STOCKS: Readonly<Record<string, StockFacts>> = {
  'Fenland Smooth 120': { weightGsm: 120, brightener: 'high', pricePerM2: 0.14 },
  'Lantern Gloss 150': { weightGsm: 150, brightener: 'moderate', pricePerM2: 0.22 },
  'Marsh Silk 130': { weightGsm: 130, brightener: 'low', pricePerM2: 0.19 },
  'Chalk Rag 310': {
    weightGsm: 310,
    side: 'the smoother side, long edge first',
    brightener: 'free',
    pricePerM2: 7.8,
  },
  'Quay Proof 200': {
    weightGsm: 200,
    side: 'the side without print on it',
    brightener: 'faint',
    pricePerM2: 2.6,
  },
};
/** Price of a litre of C, M, Y, K, and what lies on a square metre in full. */
const COSTS: Readonly<Record<string, InkCosts>> = {
  'Toner four': [72, 72, 72, 48].map((pricePerLitre) => ({ pricePerLitre, millilitresPerM2: 4.2 })),
  'Process four': [14, 14, 13, 9].map((pricePerLitre) => ({ pricePerLitre, millilitresPerM2: 1.3 })),
};
const INKS: Readonly<Record<string, InkKind>> = {
  'Pigment four': 'pigment',
  'Toner four': 'toner',
  'Process four': 'offset',
  'Pigment six': 'pigment',
  'Process seven': 'offset',
};

/** Who works in the sample house beside its specialist. They come in by a passphrase that its keeper gives them. */
export async function tellPeople(context: Context): Promise<void> {
  const known = new Set((await people(context)).map(({ name }) => name));
  if (!known.has('Tom Aldous')) await makePerson(context, { name: 'Tom Aldous', role: 'operator' });
}

/** Tells what the sample house knows of its devices, stocks and inks, where it has told nothing yet. */
export async function tellFacts(context: Context): Promise<void> {
  for (const device of await libraryDevices(context)) {
    const facts = DEVICES[device.name];
    if (facts !== undefined && isUntold(device.facts))
      await changeDevice(context, device.id, { ...device, modes: undefined, duty: undefined, facts });
  }
  for (const stock of await libraryStocks(context)) {
    const facts = STOCKS[stock.name];
    if (facts !== undefined && isUntold(stock.facts))
      await changeStock(context, stock.id, { ...stock, facts });
  }
  for (const inkSet of await libraryInkSets(context)) {
    const kind = INKS[inkSet.name];
    if (kind !== undefined && inkSet.kind === '')
      await changeInkSet(context, inkSet.id, { ...inkSet, kind, costs: COSTS[inkSet.name] ?? [] });
  }
}

function isUntold(facts: object): boolean {
  return Object.keys(facts).length === 0;
}
