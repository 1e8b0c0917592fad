/**
 * The nodes beside a node of a cube of `side` nodes along each axis, the last axis fastest.
 * @param out room for six; filled along the first axis first, the lower one before the higher.
 * @returns how many there are: three at a corner, six within.
 */
export function cubeNeighbours(node: number, side: number, out: Int32Array): number {
  let count = 0;
  for (let stride = side * side; stride >= 1; stride /= side) {
    const place = Math.floor(node / stride) % side;
    if (place > 0) out[count++] = node - stride;
    if (place < side - 1) out[count++] = node + stride;
  }
  return count;
}
