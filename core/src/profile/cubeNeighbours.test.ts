import { describe, expect, it } from 'vitest';
import { cubeNeighbours } from './cubeNeighbours.ts';

describe('the nodes beside a node', () => {
  it.each([
    ['in the middle', 13, [4, 22, 10, 16, 12, 14]],
    ['at the first corner', 0, [9, 3, 1]],
    ['at the last corner', 26, [17, 23, 25]],
    ['on a face', 4, [13, 1, 7, 3, 5]],
  ])('%s of a cube of three', (_, node, expected) => {
    const out = new Int32Array(6);
    expect([...out.subarray(0, cubeNeighbours(node, 3, out))]).toEqual(expected);
  });
});
