/**
 * Interpolation of many rows at once, in place: row r of `rows` begins at r·stride with the inputs, 0..1, and ends with
 * the outputs. Nodes are read as they are. Inputs beyond 0..1 are clipped.
 */
export type ClutRows = (rows: Float64Array, count: number) => void;

/** A table as the kernels read it; 16-bit nodes stay in the caches. */
export interface RowsTable {
  /** Row-major, last input fastest. */
  readonly nodes: Uint16Array;
  readonly grid: readonly number[];
  readonly outputs: number;
  readonly stride: number;
}

/** Tetrahedral over three inputs. */
export function tetrahedralRows({ nodes, grid, outputs, stride }: RowsTable): ClutRows {
  const [n0, n1, n2] = grid;
  const s2 = outputs;
  const s1 = n2 * s2;
  const s0 = n1 * s1;
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride) {
      const p0 = Math.min(1, Math.max(0, rows[at])) * (n0 - 1);
      const p1 = Math.min(1, Math.max(0, rows[at + 1])) * (n1 - 1);
      const p2 = Math.min(1, Math.max(0, rows[at + 2])) * (n2 - 1);
      const i0 = Math.min(p0 | 0, n0 - 2);
      const i1 = Math.min(p1 | 0, n1 - 2);
      const i2 = Math.min(p2 | 0, n2 - 2);
      const f0 = p0 - i0;
      const f1 = p1 - i1;
      const f2 = p2 - i2;
      const base = i0 * s0 + i1 * s1 + i2 * s2;
      const top = base + s0 + s1 + s2;
      const high = Math.max(f0, f1, f2);
      const low = Math.min(f0, f1, f2);
      const middle = f0 + f1 + f2 - high - low;
      // From the lowest corner along the input of the largest share first, to the highest along that of the least last.
      const first = base + (high === f0 ? s0 : high === f1 ? s1 : s2);
      const second = top - (low === f2 ? s2 : low === f1 ? s1 : s0);
      const w0 = 1 - high;
      const w1 = high - middle;
      const w2 = middle - low;
      for (let o = 0; o < outputs; o++)
        rows[at + o] =
          w0 * nodes[base + o] + w1 * nodes[first + o] + w2 * nodes[second + o] + low * nodes[top + o];
    }
  };
}

/** Linear along the first of four inputs and tetrahedral over the others, as colour engines do it. */
export function fourRows({ nodes, grid, outputs, stride }: RowsTable): ClutRows {
  const [n0, n1, n2, n3] = grid;
  const s3 = outputs;
  const s2 = n3 * s3;
  const s1 = n2 * s2;
  const s0 = n1 * s1;
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride) {
      const p0 = Math.min(1, Math.max(0, rows[at])) * (n0 - 1);
      const p1 = Math.min(1, Math.max(0, rows[at + 1])) * (n1 - 1);
      const p2 = Math.min(1, Math.max(0, rows[at + 2])) * (n2 - 1);
      const p3 = Math.min(1, Math.max(0, rows[at + 3])) * (n3 - 1);
      const i0 = Math.min(p0 | 0, n0 - 2);
      const i1 = Math.min(p1 | 0, n1 - 2);
      const i2 = Math.min(p2 | 0, n2 - 2);
      const i3 = Math.min(p3 | 0, n3 - 2);
      const share = p0 - i0;
      const f1 = p1 - i1;
      const f2 = p2 - i2;
      const f3 = p3 - i3;
      const base = i0 * s0 + i1 * s1 + i2 * s2 + i3 * s3;
      const top = base + s1 + s2 + s3;
      const high = Math.max(f1, f2, f3);
      const low = Math.min(f1, f2, f3);
      const middle = f1 + f2 + f3 - high - low;
      const first = base + (high === f1 ? s1 : high === f2 ? s2 : s3);
      const second = top - (low === f3 ? s3 : low === f2 ? s2 : s1);
      const w0 = 1 - high;
      const w1 = high - middle;
      const w2 = middle - low;
      for (let o = 0; o < outputs; o++) {
        const here =
          w0 * nodes[base + o] + w1 * nodes[first + o] + w2 * nodes[second + o] + low * nodes[top + o];
        const there =
          w0 * nodes[base + s0 + o] +
          w1 * nodes[first + s0 + o] +
          w2 * nodes[second + s0 + o] +
          low * nodes[top + s0 + o];
        rows[at + o] = here + share * (there - here);
      }
    }
  };
}

/** Trilinear over three inputs. */
export function trilinearRows({ nodes, grid, outputs, stride }: RowsTable): ClutRows {
  const [n0, n1, n2] = grid;
  const s2 = outputs;
  const s1 = n2 * s2;
  const s0 = n1 * s1;
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride) {
      const p0 = Math.min(1, Math.max(0, rows[at])) * (n0 - 1);
      const p1 = Math.min(1, Math.max(0, rows[at + 1])) * (n1 - 1);
      const p2 = Math.min(1, Math.max(0, rows[at + 2])) * (n2 - 1);
      const i0 = Math.min(p0 | 0, n0 - 2);
      const i1 = Math.min(p1 | 0, n1 - 2);
      const i2 = Math.min(p2 | 0, n2 - 2);
      const f0 = p0 - i0;
      const f1 = p1 - i1;
      const f2 = p2 - i2;
      const a = i0 * s0 + i1 * s1 + i2 * s2;
      const b = a + s1;
      const c = a + s0;
      const d = c + s1;
      for (let o = 0; o < outputs; o++) {
        const va = nodes[a + o] + f2 * (nodes[a + s2 + o] - nodes[a + o]);
        const vb = nodes[b + o] + f2 * (nodes[b + s2 + o] - nodes[b + o]);
        const vc = nodes[c + o] + f2 * (nodes[c + s2 + o] - nodes[c + o]);
        const vd = nodes[d + o] + f2 * (nodes[d + s2 + o] - nodes[d + o]);
        const low = va + f1 * (vb - va);
        rows[at + o] = low + f0 * (vc + f1 * (vd - vc) - low);
      }
    }
  };
}

/** Multilinear over one or two inputs. */
export function multilinearRows({ nodes, grid, outputs, stride }: RowsTable): ClutRows {
  const n = grid.length;
  const strides = new Int32Array(n);
  for (let i = n - 1, next = outputs; i >= 0; next *= grid[i], i--) strides[i] = next;
  const shares = new Float64Array(n);
  const sums = new Float64Array(outputs);
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride) {
      let base = 0;
      for (let i = 0; i < n; i++) {
        const position = Math.min(1, Math.max(0, rows[at + i])) * (grid[i] - 1);
        const cell = Math.min(position | 0, grid[i] - 2);
        shares[i] = position - cell;
        base += cell * strides[i];
      }
      sums.fill(0);
      for (let corner = 0; corner < 1 << n; corner++) {
        let weight = 1;
        let node = base;
        for (let i = 0; i < n; i++)
          if ((corner >> i) & 1) {
            weight *= shares[i];
            node += strides[i];
          } else weight *= 1 - shares[i];
        if (weight !== 0) for (let o = 0; o < outputs; o++) sums[o] += weight * nodes[node + o];
      }
      for (let o = 0; o < outputs; o++) rows[at + o] = sums[o];
    }
  };
}

/** Linear along all of more than four inputs but the last three, and tetrahedral over those, as colour engines do it. */
export function manyRows({ nodes, grid, outputs, stride }: RowsTable): ClutRows {
  const n = grid.length;
  const outer = n - 3;
  const strides = new Int32Array(n);
  for (let i = n - 1, next = outputs; i >= 0; next *= grid[i], i--) strides[i] = next;
  const [s1, s2, s3] = strides.subarray(outer);
  const shares = new Float64Array(n);
  const sums = new Float64Array(outputs);
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride) {
      let base = 0;
      for (let i = 0; i < n; i++) {
        const position = Math.min(1, Math.max(0, rows[at + i])) * (grid[i] - 1);
        const cell = Math.max(0, Math.min(position | 0, grid[i] - 2));
        shares[i] = position - cell;
        base += cell * strides[i];
      }
      const f1 = shares[outer];
      const f2 = shares[outer + 1];
      const f3 = shares[outer + 2];
      const high = Math.max(f1, f2, f3);
      const low = Math.min(f1, f2, f3);
      const middle = f1 + f2 + f3 - high - low;
      const first = high === f1 ? s1 : high === f2 ? s2 : s3;
      const top = s1 + s2 + s3;
      const second = top - (low === f3 ? s3 : low === f2 ? s2 : s1);
      const w0 = 1 - high;
      const w1 = high - middle;
      const w2 = middle - low;
      sums.fill(0);
      for (let corner = 0; corner < 1 << outer; corner++) {
        let weight = 1;
        let node = base;
        for (let i = 0; i < outer; i++)
          if ((corner >> i) & 1) {
            weight *= shares[i];
            node += strides[i];
          } else weight *= 1 - shares[i];
        if (weight === 0) continue;
        for (let o = 0; o < outputs; o++)
          sums[o] +=
            weight *
            (w0 * nodes[node + o] +
              w1 * nodes[node + first + o] +
              w2 * nodes[node + second + o] +
              low * nodes[node + top + o]);
      }
      for (let o = 0; o < outputs; o++) rows[at + o] = sums[o];
    }
  };
}
