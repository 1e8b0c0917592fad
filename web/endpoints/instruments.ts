import { Type } from '@sinclair/typebox';
import { INSTRUMENT } from '@melto/bridge/protocol';
import type { InstrumentRow } from '@melto/services/reading/instruments';
import { answers, DONE, makes, sets, strict } from './endpoint';
import { IN_PATH, text, word } from './fields';

export const KNOW_INSTRUMENT = makes({
  path: '/api/instruments',
  says: 'Make an instrument known to the house as its bridge tells of it; by its serial number it is the same one',
  who: 'operator',
  byItself: true,
  body: Type.Omit(INSTRUMENT, ['begins', 'movements'], { additionalProperties: false }),
  answer: answers<InstrumentRow>(Type.Object({ id: Type.Integer(), name: Type.String() })),
});

export const CHANGE_INSTRUMENT = sets({
  ...{ path: '/api/instruments/{id}', says: 'Name an instrument, note something of it', who: 'specialist' },
  params: IN_PATH,
  body: strict({ name: word(80), note: text(400) }),
  answer: DONE,
});

export const TILE_READ = makes({
  ...{ path: '/api/instruments/{id}/tile', says: 'Its white tile was read now', who: 'operator' },
  params: IN_PATH,
  answer: answers<{ readonly tileMs: number }>(strict({ tileMs: Type.Number() })),
});
