import { Type } from '@sinclair/typebox';
import type { NamedColour } from '@melto/core/refine/namedColour';
import type { ColourListDetail } from '@melto/services/lists/colourLists';
import type { SpectralChart } from '@melto/core/light/chartInLights';
import type { ColourListRow } from '@melto/services/lists/colourLists';
import { answers, DONE, MADE, makes, oneOf, reads, sets, strict } from './endpoint';
import { ID, IN_PATH, LAB, text, word, LIMIT } from './fields';

const LIST_FILE = { file: true, mostBytes: 8_000_000 } as const;
/** Colours of one list that are kept at once. */
const MOST_COLOURS = 2000;
const LISTED = Type.Array(Type.Object({ id: Type.Integer(), name: Type.String() }));
const COLOURS = Type.Array(Type.Object({ name: Type.String(), lab: LAB }));

export const READ_COLOURS = makes({
  ...{ path: '/api/colour-lists/preview', says: 'Read a colour list (CxF, CGATS, CSV); nothing is stored' },
  who: 'viewer',
  body: LIST_FILE,
  answer: answers<{ readonly colours: readonly NamedColour[] }>(Type.Object({ colours: COLOURS })),
});

export const COLOUR_LISTS = reads({
  ...{ path: '/api/colour-lists', says: 'Colour lists, the latest version of each', who: 'viewer' },
  answer: answers<readonly ColourListRow[]>(LISTED),
});

export const TAKE_COLOUR_LIST = makes({
  path: '/api/colour-lists',
  says: 'Take a colour list (CxF, CGATS, CSV) into the library, or as the next version of one',
  who: 'specialist',
  query: strict({ name: word(120), file: word(200), versionOf: Type.Optional(ID) }),
  body: LIST_FILE,
  answer: MADE,
});

export const KEEP_COLOURS = makes({
  path: '/api/colour-lists/measured',
  says: 'Keep colours that were measured or typed as a list, or as the next version of one',
  who: 'specialist',
  body: strict({
    name: word(120),
    versionOf: Type.Optional(ID),
    colours: Type.Array(
      strict({
        name: word(120),
        lab: LAB,
        spectrum: Type.Optional(
          strict({
            grid: strict({
              startNm: Type.Number({ minimum: 300, maximum: 500 }),
              stepNm: Type.Number({ minimum: 1, maximum: 20 }),
              count: Type.Integer({ minimum: 10, maximum: 401 }),
            }),
            values: Type.Array(Type.Number({ minimum: -1, maximum: 10 }), { minItems: 10, maxItems: 401 }),
          }),
        ),
      }),
      { minItems: 1, maxItems: MOST_COLOURS },
    ),
  }),
  answer: MADE,
});

export const COLOUR_LIST = reads({
  ...{ path: '/api/colour-lists/{id}', says: 'A version of a colour list with its colours', who: 'viewer' },
  params: IN_PATH,
  answer: answers<ColourListDetail>(
    Type.Object({ id: Type.Integer(), name: Type.String(), colours: COLOURS, versions: LISTED }),
  ),
});

export const CHANGE_COLOUR_LIST = sets({
  ...{
    path: '/api/colour-lists/{id}',
    says: 'Name a colour list, note what it is for, and which ΔE00 it allows',
  },
  who: 'specialist',
  params: IN_PATH,
  body: strict({
    name: word(120),
    note: text(400),
    tolerance: Type.Optional(Type.Union([LIMIT, Type.Null()])),
  }),
  answer: DONE,
});

export const REMOVE_COLOUR_LIST = sets({
  ...{ path: '/api/colour-lists/{id}/removed', says: 'Remove a colour list or take it back' },
  who: 'specialist',
  params: IN_PATH,
  body: strict({ removed: Type.Boolean() }),
  answer: DONE,
});

export const COLOUR_LIST_FILE = reads({
  ...{ path: '/api/colour-lists/{id}/file', says: 'A version of a colour list as CGATS', who: 'viewer' },
  params: IN_PATH,
});

export const COLOUR_LIST_REPORT = reads({
  path: '/api/colour-lists/{id}/report',
  says: 'What becomes of a colour list on a condition: reachable or not, by how much, with which inks',
  who: 'viewer',
  params: IN_PATH,
  query: strict({ conditionId: ID, format: oneOf(['html', 'pdf'] as const) }),
});

export const SPECTRAL_CHART = reads({
  path: '/api/conditions/{id}/spectral-chart',
  says: 'Device values and spectra of the chart that the profile in force was built from',
  who: 'viewer',
  params: IN_PATH,
  answer: answers<SpectralChart>(
    Type.Object({ channels: Type.Integer(), device: Type.Array(Type.Number()) }),
  ),
});
