import { readUpload } from '@melto/paper/readUpload';
import type { UploadTask } from '@melto/paper/readUpload';
import { expect, it } from 'vitest';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { readColours } from './colourLists.ts';

const context = { readUpload: async (task: UploadTask) => readUpload(task) } as unknown as Context;

it('a list of colours is read, or refused in a sentence that names what it could be', async () => {
  expect(await readColours(context, 'name;L;a;b\nSeed red;52;48;26')).toEqual([
    { name: 'Seed red', lab: [52, 48, 26] },
  ]);
  const refused = readColours(context, 'no list at all');
  await expect(refused).rejects.toThrow(Problem);
  await expect(refused).rejects.toThrow(/The list cannot be used/);
});
