import type { Static } from '@sinclair/typebox';
import type { MeasuredCondition } from '@melto/services/house/measuredHouse';
import { Problem } from '@melto/services/kernel/problem';
import type { TAKE_MEASURED_ELSEWHERE } from '@/endpoints/reading';

/** The condition that the query of a file names; what is new has a name of its own. */
export function measuredConditionOf({
  deviceId,
  device,
  kind,
  inkSet,
  stockId,
  stock,
  finish,
  restMinutes,
  printMode,
}: Static<typeof TAKE_MEASURED_ELSEWHERE.query>): MeasuredCondition {
  const newDevice =
    device === undefined || kind === undefined || inkSet === undefined
      ? undefined
      : { name: device, kind, inkSet };
  const newStock =
    stock === undefined || finish === undefined || restMinutes === undefined
      ? undefined
      : { name: stock, finish, restMinutes };
  const chosenDevice = deviceId === undefined ? newDevice : { id: deviceId };
  const chosenStock = stockId === undefined ? newStock : { id: stockId };
  if (chosenDevice === undefined)
    throw new Problem(
      'bad-input',
      'The device that the file is of is not told.',
      'Give its id, or name, kind and ink set of a new one.',
      'device',
    );
  if (chosenStock === undefined)
    throw new Problem(
      'bad-input',
      'The stock that the file is of is not told.',
      'Give its id, or name, surface and rest of a new one.',
      'stock',
    );
  return { device: chosenDevice, stock: chosenStock, mode: printMode };
}
