import type { IccCurve } from './iccTypes.ts';

/** A one-dimensional map of 0..1. */
export type CurveFunction = (x: number) => number;

/** Compiles a curve; tables are interpolated linearly, the result is clipped to 0..1 as in 16-bit profiles. */
export function compileCurve(curve: IccCurve): CurveFunction {
  switch (curve.kind) {
    case 'identity':
      return (x) => x;
    case 'gamma':
      return (x) => Math.pow(Math.max(0, x), curve.gamma);
    case 'table':
      return compileTable(curve.values);
    case 'parametric':
      return parametric(curve.functionType, curve.parameters);
  }
}

export function compileTable(values: Uint16Array): CurveFunction {
  const last = values.length - 1;
  return (x) => {
    const position = Math.min(1, Math.max(0, x)) * last;
    const i = Math.min(position | 0, last - 1);
    return (values[i] + (position - i) * (values[i + 1] - values[i])) / 65535;
  };
}

/** parametricCurveType (ICC.1:2022, table 68). */
function parametric(functionType: number, p: readonly number[]): CurveFunction {
  const [g, a, b, c, d, e, f] = p;
  const clip = (y: number): number => Math.min(1, Math.max(0, y));
  const power = (base: number): number => Math.pow(Math.max(0, base), g);
  switch (functionType) {
    case 0:
      return (x) => clip(power(x));
    case 1:
      return (x) => clip(x >= -b / a ? power(a * x + b) : 0);
    case 2:
      return (x) => clip(x >= -b / a ? power(a * x + b) + c : c);
    case 3:
      return (x) => clip(x >= d ? power(a * x + b) : c * x);
    case 4:
      return (x) => clip(x >= d ? power(a * x + b) + e : c * x + f);
    default:
      throw new RangeError(`parametric curve of type ${functionType}`);
  }
}
