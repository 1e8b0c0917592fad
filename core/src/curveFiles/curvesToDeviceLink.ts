import type { IccCurve, IccProfile, LutAbTag, LutTag } from '../icc/iccTypes.ts';
import { linkProfile } from '../icc/linkProfile.ts';
import { evaluateToneCurve } from '../tone/toneCurve.ts';
import type { ToneCurves } from '../tone/toneCurve.ts';

/** Entries of each curve in the link; between them an engine joins lines. */
const ENTRIES = 1024;

/**
 * An ICC device link CMYK → CMYK that does nothing but apply the curves (ICC.1:2022, 8.6: `A2B0`, `pseq`).
 * @param curves of C, M, Y, K.
 */
export function curvesToDeviceLink(
  curves: ToneCurves,
  description: string,
  createdMs: number,
  version: 2 | 4 = 4,
): IccProfile {
  if (curves.length !== 4) throw new RangeError(`${curves.length} curves for CMYK`);
  const tables = curves.map((curve) =>
    Uint16Array.from({ length: ENTRIES }, (_, i) =>
      Math.round(65535 * evaluateToneCurve(curve, i / (ENTRIES - 1))),
    ),
  );
  const table = version === 2 ? lut16(tables) : lutAToB(tables);
  return linkProfile({ from: 'CMYK', to: 'CMYK', table, description, createdMs, version });
}

/** The corners of the CMYK cube, each its own value: the table of a link that leaves values as they are. */
function identityClut(): { grid: number[]; outputs: number; values: Uint16Array } {
  const values = new Uint16Array(16 * 4);
  for (let node = 0; node < 16; node++)
    for (let channel = 0; channel < 4; channel++)
      values[4 * node + channel] = (node >> (3 - channel)) & 1 ? 65535 : 0;
  return { grid: [2, 2, 2, 2], outputs: 4, values };
}

function lut16(tables: readonly Uint16Array[]): LutTag {
  return {
    type: 'lut16',
    inputs: 4,
    outputs: 4,
    matrix: [1, 0, 0, 0, 1, 0, 0, 0, 1],
    inputTables: tables,
    clut: identityClut(),
    outputTables: new Array<Uint16Array>(4).fill(Uint16Array.of(0, 65535)),
  };
}

function lutAToB(tables: readonly Uint16Array[]): LutAbTag {
  const identity: IccCurve = { kind: 'identity' };
  return {
    type: 'mAB',
    inputs: 4,
    outputs: 4,
    aCurves: tables.map((values): IccCurve => ({ kind: 'table', values })),
    clut: identityClut(),
    bCurves: new Array<IccCurve>(4).fill(identity),
  };
}
