import type { MeasurementMode } from '@melto/core/device/instrument';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { isOwnDevice } from '../ledger/conditions.ts';
import type { DeskData } from './deskData.ts';
import { instrumentOf } from './instruments.ts';
import type { InstrumentRow } from './instruments.ts';

/** An instrument that can read a sheet in a mode, or a refusal in words. */
export async function requireReader(
  context: Context,
  { sheet, condition }: Pick<DeskData, 'sheet' | 'condition'>,
  id: number,
  mode: MeasurementMode,
): Promise<InstrumentRow> {
  const instrument = await instrumentOf(context, id);
  if (instrument.simulated && isOwnDevice(condition))
    throw new Problem(
      'bad-input',
      `${instrument.name} is simulated, and ${sheet.code} was printed at a real device.`,
      'Read it with a real instrument, or give its measurements from a file.',
    );
  if (!instrument.modes.includes(mode))
    throw new Problem(
      'bad-input',
      `${instrument.name} does not measure ${mode}.`,
      `Choose ${instrument.modes.join(' or ')}.`,
      'mode',
    );
  return instrument;
}
