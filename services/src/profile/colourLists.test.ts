import { expect, it } from 'vitest';
import { Problem } from '../kernel/problem.ts';
import { colourList } from './colourLists.ts';

it('a list of colours is read, or refused in a sentence that names what it could be', () => {
  expect(colourList('name;L;a;b\nSeed red;52;48;26').colours).toEqual([
    { name: 'Seed red', lab: [52, 48, 26] },
  ]);
  const refused = (): unknown => colourList('no list at all');
  expect(refused).toThrow(Problem);
  expect(refused).toThrow(/The list cannot be used/);
});
