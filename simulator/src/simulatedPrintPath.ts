import type { PrintPath } from '@melto/core/device/printPath';
import { simulatedDevice } from './devices.ts';
import { encodePrintState } from './printState.ts';

/** Prints on the simulated devices: nothing happens but the making of the sheet's state. */
export const simulatedPrintPath: PrintPath = {
  print(request) {
    const device = simulatedDevice(request.device);
    if (!device.stocks.some((id) => id === request.stock))
      throw new RangeError(`no simulated stock "${request.stock}"`);
    if (!device.modes.includes(request.mode))
      throw new RangeError(`no mode "${request.mode}" on ${device.name}`);
    return encodePrintState(request);
  },
};
