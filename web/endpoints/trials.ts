import { Type } from '@sinclair/typebox';
import { TRIAL_PATCHES, TRIAL_STOCKS } from '@melto/core/stock/trialRanges';
import type { PaperTrial, PaperTrialRow } from '@melto/services/house/paperTrials';
import type { SettingsPoint } from '@melto/services/ledger/conditions';
import { answers, DONE, makes, reads, sets, strict } from './endpoint';
import { FORM, ID, IN_PATH, text, word } from './fields';

export const TRIALS = reads({
  ...{ path: '/api/paper-trials', says: 'Paper trials: one chart on many stocks', who: 'viewer' },
  answer: answers<readonly PaperTrialRow[]>(Type.Array(Type.Object({ id: Type.Integer() }))),
});

export const TRIAL_POINTS = reads({
  path: '/api/paper-trials/points',
  says: 'What is ticked before a paper trial is printed',
  who: 'viewer',
  query: strict({
    deviceId: ID,
    inkSet: word(80),
    mode: word(60),
    stockIds: Type.String({
      pattern: '^[1-9]\\d{0,14}(,[1-9]\\d{0,14}){0,23}$',
      description: 'numbers, parted by commas',
    }),
  }),
  answer: answers<readonly SettingsPoint[]>(Type.Array(Type.Object({ label: Type.String() }))),
});

export const BEGIN_TRIAL = makes({
  path: '/api/paper-trials',
  says: 'Print one chart on many stocks, to compare them',
  who: 'specialist',
  body: strict({
    name: word(120),
    deviceId: ID,
    inkSet: word(80),
    mode: word(60),
    stockIds: Type.Array(ID, {
      minItems: TRIAL_STOCKS.least,
      maxItems: TRIAL_STOCKS.most,
      uniqueItems: true,
    }),
    patches: Type.Integer({ minimum: TRIAL_PATCHES.least, maximum: TRIAL_PATCHES.most }),
    ticks: Type.Array(text(120), { maxItems: 40 }),
    ...FORM,
  }),
  answer: answers<{ readonly id?: number; readonly jobId?: number }>(
    strict({ id: Type.Optional(Type.Integer()), jobId: Type.Optional(Type.Integer()) }),
  ),
});

export const TRIAL = reads({
  path: '/api/paper-trials/{id}',
  says: 'A paper trial: its stocks, sheets and readings',
  who: 'viewer',
  params: IN_PATH,
  answer: answers<PaperTrial>(Type.Object({ id: Type.Integer(), prints: Type.Array(Type.Object({})) })),
});

export const REMOVE_TRIAL = sets({
  path: '/api/paper-trials/{id}/removed',
  says: 'Take a paper trial off the list, or put it back',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ removed: Type.Boolean() }),
  answer: DONE,
});
