/** A node of a regular table and its share in an interpolated value. */
export interface NodeShare {
  readonly node: number;
  readonly share: number;
}

/** The four nodes that tetrahedral interpolation mixes at a point of three coordinates 0..1; the last varies fastest. */
export function tetrahedron(at: readonly [number, number, number], points: number): NodeShare[] {
  const strides = [points * points, points, 1];
  const cells = at.map((value) =>
    Math.min(points - 2, Math.floor(Math.min(1, Math.max(0, value)) * (points - 1))),
  );
  const within = at.map((value, i) => Math.min(1, Math.max(0, value)) * (points - 1) - cells[i]);
  const order = [0, 1, 2].sort((a, b) => within[b] - within[a]);
  let node = cells[0] * strides[0] + cells[1] * strides[1] + cells[2];
  const out: NodeShare[] = [{ node, share: 1 - within[order[0]] }];
  order.forEach((axis, i) => {
    node += strides[axis];
    out.push({ node, share: within[axis] - (i < 2 ? within[order[i + 1]] : 0) });
  });
  return out;
}

/** The eight nodes that multilinear interpolation mixes at a point of three coordinates. */
export function cube(at: readonly [number, number, number], points: number): NodeShare[] {
  const corners = at.map((value) => {
    const place = Math.min(1, Math.max(0, value)) * (points - 1);
    const cell = Math.min(points - 2, Math.floor(place));
    return [
      { index: cell, share: cell + 1 - place },
      { index: cell + 1, share: place - cell },
    ];
  });
  return corners[0].flatMap((a) =>
    corners[1].flatMap((b) =>
      corners[2].map((c) => ({
        node: (a.index * points + b.index) * points + c.index,
        share: a.share * b.share * c.share,
      })),
    ),
  );
}

/** The eight nodes of four coordinates, as colour engines mix them: linear along the first, tetrahedra over the rest. */
export function tetrahedraOfFour(at: ArrayLike<number>, points: number): NodeShare[] {
  const first = Math.min(1, Math.max(0, at[0])) * (points - 1);
  const cell = Math.min(points - 2, Math.floor(first));
  const inner = tetrahedron([at[1], at[2], at[3]], points);
  return [0, 1].flatMap((step) =>
    inner.map(({ node, share }) => ({
      node: (cell + step) * points ** 3 + node,
      share: share * (step === 0 ? 1 - (first - cell) : first - cell),
    })),
  );
}

/** Adds the least change to the nodes that moves the interpolated value by `change`. */
export function moveValue(
  table: Float64Array,
  outputs: number,
  shares: readonly NodeShare[],
  change: ArrayLike<number>,
): void {
  const size = shares.reduce((sum, { share }) => sum + share * share, 0);
  for (const { node, share } of shares)
    for (let o = 0; o < outputs; o++) table[node * outputs + o] += (share / size) * change[o];
}
