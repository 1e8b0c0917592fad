import { aimSets } from '@melto/services/conformity/aimSets';
import { createAimSetByHand, createAimSetFromReading } from '@melto/services/conformity/newAimSet';
import { Problem } from '@melto/services/kernel/problem';
import { AIM_SETS, NEW_AIM_SET } from '@/endpoints/conformity';
import { answering, changing } from '@/server/route';

export const GET = answering(AIM_SETS, ({ context }) => aimSets(context));

export const POST = changing(
  NEW_AIM_SET,
  async ({ context, body: { readingId, rows, conditions, ...input } }) => {
    if (readingId !== undefined) return createAimSetFromReading(context, input, readingId);
    if (rows !== undefined) return createAimSetByHand(context, input, rows, conditions ?? {});
    throw new Problem('bad-input', 'There are no aims.', 'Give a reading or rows.', 'rows');
  },
);
