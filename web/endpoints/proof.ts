import { Type } from '@sinclair/typebox';
import type { PictureValues } from '@melto/services/proof/pictureValues';
import { answers, makes, strict } from './endpoint';

export const PICTURE_VALUES = makes({
  ...{ path: '/api/proof-pictures', says: 'The values of a picture for a proof; nothing is stored' },
  who: 'viewer',
  query: strict({ side: Type.Integer({ minimum: 64, maximum: 4000 }) }),
  body: { file: true, mostBytes: 200_000_000 } as const,
  answer: answers<PictureValues>(
    Type.Object({ width: Type.Integer(), height: Type.Integer(), values: Type.String() }),
  ),
});
