import { adaptationMatrix } from '../../colour/chromaticAdaptation.ts';
import { WHITE_ICC } from '../../colour/whitePoints.ts';
import { iccDateOf } from '../iccDate.ts';
import type { IccProfile, IccTag } from '../iccTypes.ts';
import type { SourceSpace } from '../../chain/sourceSpaces.ts';

/** A display profile of a space (ICC.1:2022, 8.4.3, matrix and curves), for a picture to carry. */
export function sourceProfile({ name, white, matrix, curve }: SourceSpace): IccProfile {
  const text = (words: string): IccTag => ({
    type: 'mluc',
    records: [{ language: 'en', country: 'GB', text: words }],
  });
  const column = (c: number): IccTag => ({
    type: 'XYZ',
    values: [[matrix[c], matrix[3 + c], matrix[6 + c]]],
  });
  const tone: IccTag = { type: 'curve', curve };
  return {
    header: {
      version: { major: 4, minor: 4 },
      deviceClass: 'mntr',
      colourSpace: 'RGB ',
      pcs: 'XYZ ',
      created: iccDateOf(0),
      intent: 0,
      flags: 0,
      creator: '',
      manufacturer: '',
      model: '',
    },
    tags: new Map<string, IccTag>([
      ['desc', text(name)],
      ['cprt', text('No copyright, use freely')],
      ['wtpt', { type: 'XYZ', values: [WHITE_ICC] }],
      ['chad', { type: 'sf32', values: [...adaptationMatrix(white, WHITE_ICC)] }],
      ['rXYZ', column(0)],
      ['gXYZ', column(1)],
      ['bXYZ', column(2)],
      ['rTRC', tone],
      ['gTRC', tone],
      ['bTRC', tone],
    ]),
  };
}
