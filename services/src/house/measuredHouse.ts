import type { Answers } from '@melto/core/measured/measurement';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { takeMeasuredChart, ticksOf } from '../reading/measuredChart.ts';
import type { ImportedReading } from '../reading/importReading.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from './newCondition.ts';
import { createDevice, createStock } from './ownDevices.ts';
import type { OwnDeviceKind, OwnStock } from './ownDevices.ts';
import { Problem } from '../kernel/problem.ts';

/** The condition that a file was measured on: of what the house has, or of what is made with it. */
export interface MeasuredCondition {
  readonly device:
    | { readonly id: number }
    | { readonly name: string; readonly kind: OwnDeviceKind; readonly inkSet: string };
  readonly stock: { readonly id: number } | OwnStock;
  readonly mode: string;
}

/**
 * Takes a file that was measured elsewhere with all that it is of: device, stock and condition where they are new, its
 * chart and its reading, all or nothing.
 */
export async function takeMeasuredHouse(
  context: Context,
  { device, stock, mode }: MeasuredCondition,
  name: string,
  file: Uint8Array | string,
  answers: Answers = {},
): Promise<ImportedReading & { readonly conditionId: number }> {
  return unitOfWork(context, async (inner) => {
    const deviceId =
      'id' in device ? device.id : (await createDevice(inner, { ...device, modes: [mode] })).id;
    const stockId = 'id' in stock ? stock.id : (await createStock(inner, stock)).id;
    const known = (await conditionChoices(inner)).devices.find(({ id }) => id === deviceId);
    if (known === undefined)
      throw new Problem('bad-input', 'This device is not known.', 'Choose one of the list.', 'device');
    if (!known.own)
      throw new Problem(
        'bad-input',
        'This device is simulated: nothing of it is measured elsewhere.',
        'Choose a device of your own, or name a new one.',
        'device',
      );
    const { inkSet } = known;
    const condition = await createCondition(inner, {
      ...{ deviceId, stockId, inkSet, mode, points: DEFAULT_POINTS },
    });
    const ticks = await ticksOf(inner, condition.id);
    const taken = await takeMeasuredChart(inner, condition.id, name, file, ticks, answers);
    return { ...taken, conditionId: condition.id };
  });
}
