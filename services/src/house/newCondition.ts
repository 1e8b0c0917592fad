import { findSameCondition, insertCondition } from '@melto/store/conditions';
import type { SettingsPoint } from '@melto/store/conditions';
import { listDevices, listStocks, lockDevice } from '@melto/store/devices';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';

export const COLOUR_MANAGEMENT_OFF = 'Colour management off';

export interface NewCondition {
  readonly deviceId: number;
  readonly stockId: number;
  readonly inkSet: string;
  readonly mode: string;
  readonly points: readonly SettingsPoint[];
}

export interface ConditionChoices {
  readonly devices: readonly {
    readonly id: number;
    readonly name: string;
    readonly kind: string;
    readonly inkSet: string;
    readonly modes: readonly string[];
    /** Of the house's own: printed elsewhere, measured from files. */
    readonly own: boolean;
    readonly stocks: readonly {
      readonly id: number;
      readonly name: string;
      readonly finish: string;
      readonly restMinutes: number;
    }[];
  }[];
  readonly points: readonly SettingsPoint[];
}

/** Points that every settings record starts with. */
export const DEFAULT_POINTS: readonly SettingsPoint[] = [
  { label: COLOUR_MANAGEMENT_OFF, value: 'driver set to no colour adjustment', tickAtPrint: true },
  { label: 'Media setting', value: '', tickAtPrint: false },
  { label: 'Scaling', value: '100 %, no fit to page', tickAtPrint: true },
];

export async function conditionChoices({ database, catalogue }: Context): Promise<ConditionChoices> {
  const [devices, stocks] = await Promise.all([listDevices(database), listStocks(database)]);
  return {
    devices: devices.flatMap((device): ConditionChoices['devices'] => {
      const { id, name, kind, inkSet, modes } = device;
      // A device of the house's own prints on any stock.
      if (device.driver === '') return [{ id, name, kind, inkSet, modes, own: true, stocks }];
      const entry = catalogue.find(({ id }) => id === device.driver);
      if (entry === undefined) return [];
      return [
        {
          ...{ id, name, kind, own: false },
          inkSet: entry.inkSet,
          modes: entry.modes,
          stocks: stocks.filter((stock) => entry.stocks.some(({ id }) => id === stock.driver)),
        },
      ];
    }),
    points: DEFAULT_POINTS,
  };
}

export async function createCondition(
  context: Context,
  input: NewCondition,
): Promise<{ readonly id: number }> {
  checkChoices(await conditionChoices(context), input);
  return unitOfWork(context, async ({ database }) => {
    // Two that make the same condition at once follow each other, and the second finds the first.
    await lockDevice(database, input.deviceId);
    if ((await findSameCondition(database, input)) !== undefined)
      throw new Problem(
        'conflict',
        'This condition exists already.',
        'Open it, or choose another stock, mode or ink set.',
        'stockId',
      );
    const { points, ...key } = input;
    return { id: await insertCondition(database, { ...key, copiedFrom: null }, points, context.now()) };
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
