import { isDeepStrictEqual } from 'node:util';
import {
  findInstrument,
  keepInstrument,
  listInstruments,
  setTile,
  updateInstrument,
} from '@melto/store/instruments';
import type { InstrumentRow, InstrumentTraits } from '@melto/store/instruments';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';

const LONGEST_NAME = 80;

export type { InstrumentRow } from '@melto/store/instruments';

/**
 * Makes an instrument known to the house by its serial number, as its bridge tells of it: again and again the same one.
 * A name that another has is told apart by the serial number; one that the house gave stays.
 */
export async function knowInstrument(
  context: Context,
  { name, ...traits }: InstrumentTraits & { readonly name: string },
): Promise<InstrumentRow> {
  const known = (await listInstruments(context.database)).find(({ serial }) => serial === traits.serial);
  if (known !== undefined && isDeepStrictEqual({ ...known, ...traits }, known)) return known;
  return unitOfWork(context, async ({ database }) => {
    const apart = `${name.slice(0, LONGEST_NAME - traits.serial.length - 1)} ${traits.serial}`;
    const id =
      (await keepInstrument(database, name, traits)) ?? (await keepInstrument(database, apart, traits));
    if (id === undefined)
      throw new Problem(
        'conflict',
        `Another instrument is called ${apart}.`,
        'Give that one another name in the library.',
      );
    return instrumentOf({ ...context, database }, id);
  });
}

export async function instrumentOf({ database }: Context, id: number): Promise<InstrumentRow> {
  const row = await findInstrument(database, id);
  if (row === undefined) throw notFound(`instrument ${id}`);
  return row;
}

/** Keeps that the white tile of an instrument was read now. */
export async function tileRead(context: Context, id: number): Promise<{ readonly tileMs: number }> {
  await instrumentOf(context, id);
  const tileMs = await domainNow(context);
  await setTile(context.database, id, tileMs);
  return { tileMs };
}

/** Instruments that this house has met; simulated ones only where the simulator is there. */
export async function instruments({ database, under }: Context): Promise<InstrumentRow[]> {
  return (await listInstruments(database)).filter(({ simulated }) => under !== undefined || !simulated);
}

/** Names an instrument as the house calls it, and keeps a note with it. */
export async function changeInstrument(
  context: Context,
  id: number,
  change: { readonly name: string; readonly note: string },
): Promise<void> {
  const name = change.name.trim();
  if (name === '') throw new Problem('bad-input', 'An instrument needs a name.', 'Give it one.', 'name');
  await unitOfWork(context, async (inner) => {
    await instrumentOf(inner, id);
    if (!(await updateInstrument(inner.database, id, { name, note: change.note.trim() })))
      throw new Problem('conflict', `Another instrument is called ${name}.`, 'Choose another name.', 'name');
  });
}
