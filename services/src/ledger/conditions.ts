import { findCondition, insertCondition, listConditions, listSettingsPoints } from '@melto/store/conditions';
import type { ConditionRow, SettingsPoint } from '@melto/store/conditions';
import { listDevices, listStocks } from '@melto/store/devices';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { CatalogueEntry, Services } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';

export type { ConditionRow, SettingsPoint };

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

export async function conditionChoices(services: Services): Promise<ConditionChoices> {
  const [devices, stocks] = await Promise.all([
    listDevices(services.database),
    listStocks(services.database),
  ]);
  return {
    devices: devices.flatMap((device) => {
      const entry = services.catalogue.find(({ id }) => id === device.driver);
      if (entry === undefined) return [];
      return [
        {
          id: device.id,
          name: device.name,
          kind: device.kind,
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
  services: Services,
  input: NewCondition,
): Promise<{ readonly id: number }> {
  const choices = await conditionChoices(services);
  const device = choices.devices.find(({ id }) => id === input.deviceId);
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
  const same = (await listConditions(services.database)).find(
    (other) =>
      other.deviceId === input.deviceId &&
      other.stockId === input.stockId &&
      other.mode === input.mode &&
      other.inkSet === input.inkSet,
  );
  if (same !== undefined)
    throw new Problem(
      'conflict',
      'This condition exists already.',
      'Open it, or choose another stock, mode or ink set.',
      'stockId',
    );
  const id = await services.database.transaction((sql) =>
    insertCondition(sql, { ...input, copiedFrom: null }, input.points, LOCAL_PERSON, services.now()),
  );
  return { id };
}

export async function conditionOf(services: Services, id: number): Promise<ConditionRow> {
  const row = await findCondition(services.database, id);
  if (row === undefined) throw notFound(`condition ${id}`);
  return row;
}

export function settingsRecord(services: Services, condition: number): Promise<SettingsPoint[]> {
  return listSettingsPoints(services.database, condition);
}

/** What the driver of a condition's device offers. */
export function driverOf(services: Services, condition: ConditionRow): CatalogueEntry {
  const entry = services.catalogue.find(({ id }) => id === condition.deviceDriver);
  if (entry === undefined)
    throw new Problem(
      'not-ready',
      `No driver for ${condition.device} is installed.`,
      'Install it, then try again.',
    );
  return entry;
}
