import { insertCondition, listSameConditions, listSettingsPoints } from '@melto/store/conditions';
import type { SettingsPoint } from '@melto/store/conditions';
import { listDevices, listStocks, lockDevice } from '@melto/store/devices';
import { keepInkSet, listInkSets } from '@melto/store/inkSets';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';

export const COLOUR_MANAGEMENT_OFF = 'Colour management off';

export interface NewCondition {
  readonly deviceId: number;
  readonly stockId: number;
  readonly inkSet: string;
  readonly mode: string;
  /** What tells it from a condition of the same device, stock, inks and mode with other settings. */
  readonly label?: string;
  readonly points: readonly SettingsPoint[];
}

export interface StockChoice {
  readonly id: number;
  readonly name: string;
  readonly finish: string;
  readonly restMinutes: number;
}

export interface ConditionChoices {
  readonly devices: readonly {
    readonly id: number;
    readonly name: string;
    readonly kind: string;
    readonly inkSet: string;
    readonly modes: readonly string[];
    /** Name of the process that it takes. */
    readonly process: string;
    /** Of the house's own: printed elsewhere, measured from files. */
    readonly own: boolean;
    readonly stocks: readonly StockChoice[];
    /** Points that its settings record begins with. */
    readonly points: readonly SettingsPoint[];
  }[];
  /** Ink sets of the library. */
  readonly inkSets: readonly string[];
  /** All stocks that a device of the house's own prints on. */
  readonly stocks: readonly StockChoice[];
  readonly points: readonly SettingsPoint[];
}

/** Points that every settings record starts with. */
export const DEFAULT_POINTS: readonly SettingsPoint[] = [
  { label: COLOUR_MANAGEMENT_OFF, value: 'driver set to no colour adjustment', tickAtPrint: true },
  { label: 'Media setting', value: '', tickAtPrint: false },
  { label: 'Scaling', value: '100 %, no fit to page', tickAtPrint: true },
];

export async function conditionChoices({ database, catalogue }: Context): Promise<ConditionChoices> {
  const [devices, stocks, inkSets] = await Promise.all([
    listDevices(database).then((rows) => rows.filter(({ awayMs }) => awayMs === null)),
    listStocks(database).then((rows) => rows.filter(({ awayMs }) => awayMs === null)),
    listInkSets(database).then((rows) => rows.filter(({ awayMs }) => awayMs === null)),
  ]);
  return {
    devices: devices.flatMap((device): ConditionChoices['devices'] => {
      const { id, name, kind, inkSet, modes, process } = device;
      const points = templateOf(device) ?? DEFAULT_POINTS;
      // A device of the house's own prints on any stock.
      if (device.driver === '')
        return [{ id, name, kind, inkSet, modes, process: process.name, own: true, stocks, points }];
      const entry = catalogue.find(({ id }) => id === device.driver);
      if (entry === undefined) return [];
      return [
        {
          ...{ id, name, kind, process: process.name, own: false, points },
          inkSet: entry.inkSet,
          modes: entry.modes,
          stocks: stocks.filter((stock) => entry.stocks.some(({ id }) => id === stock.driver)),
        },
      ];
    }),
    stocks,
    inkSets: inkSets.map(({ name }) => name),
    points: DEFAULT_POINTS,
  };
}

/** Points that the house keeps as the template of a device. */
export function templateOf({
  settingsTemplate,
}: {
  readonly settingsTemplate: string | null;
}): readonly SettingsPoint[] | undefined {
  return settingsTemplate === null ? undefined : (JSON.parse(settingsTemplate) as SettingsPoint[]);
}

export async function createCondition(
  context: Context,
  input: NewCondition,
): Promise<{ readonly id: number }> {
  checkChoices(await conditionChoices(context), input);
  return unitOfWork(context, async ({ database }) => {
    // Two that make the same condition at once follow each other, and the second finds the first.
    await lockDevice(database, input.deviceId);
    const { points, label = '', ...key } = input;
    const same = await listSameConditions(database, key);
    for (const { id } of same)
      if (sameSettings(await listSettingsPoints(database, id), points))
        throw new Problem(
          'conflict',
          'This condition exists already.',
          'Open it, or change a setting, the stock, the mode or the ink set.',
          'stockId',
        );
    const own = plainName(label);
    if (same.some((other) => plainName(other.label) === own))
      throw new Problem(
        'conflict',
        own === ''
          ? 'There is a condition of these already, with other settings.'
          : `There is a condition “${label.trim()}” of these already.`,
        'Give this one a name that tells it from the other.',
        'label',
      );
    const row = { ...key, label: label.trim(), copiedFrom: null };
    await keepInkSet(database, key.inkSet, context.now());
    return { id: await insertCondition(database, row, points, context.now()) };
  });
}

/** A name as it is compared with others: without regard to case and spaces. */
export const plainName = (name: string): string => name.trim().toLowerCase().replace(/\s+/g, ' ');

/** The same points with the same values; one that was left empty on either side may be anything. */
function sameSettings(a: readonly SettingsPoint[], b: readonly SettingsPoint[]): boolean {
  const values = new Map(a.map(({ label, value }) => [plainName(label), plainName(value)]));
  const told = b.filter(({ value }) => value.trim() !== '');
  return told.every(({ label, value }) => {
    const other = values.get(plainName(label));
    return other === '' || other === plainName(value);
  });
}

function checkChoices({ devices }: ConditionChoices, input: NewCondition): void {
  const device = devices.find(({ id }) => id === input.deviceId);
  if (device === undefined)
    throw new Problem('bad-input', 'This device is not known.', 'Choose one of the list.', 'deviceId');
  if (!device.stocks.some(({ id }) => id === input.stockId))
    throw new Problem(
      'bad-input',
      `${device.name} does not print on this stock.`,
      'Choose one of its stocks.',
      'stockId',
    );
  if (!device.modes.includes(input.mode))
    throw new Problem(
      'bad-input',
      `${device.name} has no mode "${input.mode}".`,
      `Choose ${device.modes.join(' or ')}.`,
      'mode',
    );
  if (!input.points.some((point) => point.label === COLOUR_MANAGEMENT_OFF && point.tickAtPrint))
    throw new Problem(
      'bad-input',
      `The settings record lacks "${COLOUR_MANAGEMENT_OFF}".`,
      'Keep this point; it is ticked at each print.',
      'points',
    );
}
