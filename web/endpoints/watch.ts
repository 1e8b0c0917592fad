import { Type } from '@sinclair/typebox';
import type { WatchView } from '@melto/services/watch/watchView';
import { answers, MADE, makes, reads, strict } from './endpoint';
import { DAYS, ID, IN_PATH, LIMIT } from './fields';

export const WATCH = reads({
  ...{ path: '/api/conditions/{id}/watch', says: 'The watch with its checks', who: 'viewer' },
  params: IN_PATH,
  answer: answers<WatchView>(Type.Object({ nowMs: Type.Number(), checks: Type.Array(Type.Object({})) })),
});

const SCHEDULE = { everyDays: DAYS, expiresDays: DAYS, meanLimit: LIMIT, largestLimit: LIMIT };
const ZERO = Type.Array(ID, { minItems: 3, maxItems: 20, uniqueItems: true });

export const START_WATCH = makes({
  path: '/api/conditions/{id}/watch',
  says: 'Start a watch by readings of the watch wedge',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ ...SCHEDULE, readingIds: ZERO }),
  answer: MADE,
});

export const START_RUN_WATCH = makes({
  path: '/api/conditions/{id}/run-watch',
  says: 'Start a watch by finished runs, which later ones are checks of',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ ...SCHEDULE, runIds: ZERO }),
  answer: MADE,
});
