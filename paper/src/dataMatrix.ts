import bwipjs from 'bwip-js/node';

/** A Data Matrix (ISO/IEC 16022) as a square of modules, true where dark; without its quiet zone. */
export interface DataMatrix {
  readonly size: number;
  readonly dark: readonly boolean[];
}

interface RawSymbol {
  readonly pixs: readonly number[];
  readonly pixx: number;
  readonly pixy: number;
}

export function dataMatrix(text: string): DataMatrix {
  const [symbol] = bwipjs.raw({ bcid: 'datamatrix', text }) as unknown as readonly RawSymbol[];
  if (symbol.pixx !== symbol.pixy) throw new Error(`the code of "${text}" is not square`);
  return { size: symbol.pixx, dark: symbol.pixs.map((pixel) => pixel === 1) };
}
