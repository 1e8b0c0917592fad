/** An ICC profile as it stands in a file (ICC.1:2022 and ICC.1:2001-04). */
export interface IccProfile {
  readonly header: IccHeader;
  /** Tags by signature; two signatures that share an element hold the same object. */
  readonly tags: ReadonlyMap<string, IccTag>;
}

export interface IccHeader {
  readonly version: { readonly major: number; readonly minor: number };
  /** `prtr`, `scnr`, `mntr`, `spac`, `link`, `abst`, `nmcl`. */
  readonly deviceClass: string;
  readonly colourSpace: string;
  /** Profile connection space `Lab ` or `XYZ `; for a device link the second device space. */
  readonly pcs: string;
  readonly created: IccDate;
  readonly intent: number;
  readonly flags: number;
  readonly creator: string;
  readonly manufacturer: string;
  readonly model: string;
}

export interface IccDate {
  readonly year: number;
  readonly month: number;
  readonly day: number;
  readonly hour: number;
  readonly minute: number;
  readonly second: number;
}

export type IccCurve =
  | { readonly kind: 'identity' }
  | { readonly kind: 'gamma'; readonly gamma: number }
  | { readonly kind: 'table'; readonly values: Uint16Array }
  | { readonly kind: 'parametric'; readonly functionType: number; readonly parameters: readonly number[] };

export interface IccClut {
  /** Grid points per input channel; the last channel varies fastest. */
  readonly grid: readonly number[];
  readonly outputs: number;
  readonly values: Uint8Array | Uint16Array;
}

/** `lut8`, `lut16`: matrix (XYZ input only) → input tables → table → output tables. */
export interface LutTag {
  readonly type: 'lut8' | 'lut16';
  readonly inputs: number;
  readonly outputs: number;
  readonly matrix: readonly number[];
  readonly inputTables: readonly Uint16Array[];
  readonly clut: IccClut;
  readonly outputTables: readonly Uint16Array[];
}

/** `mAB`: A → CLUT → M → matrix → B. `mBA`: B → matrix → M → CLUT → A. */
export interface LutAbTag {
  readonly type: 'mAB' | 'mBA';
  readonly inputs: number;
  readonly outputs: number;
  readonly aCurves?: readonly IccCurve[];
  readonly clut?: IccClut;
  readonly mCurves?: readonly IccCurve[];
  /** 3×3 row-major, then three offsets. */
  readonly matrix?: readonly number[];
  readonly bCurves: readonly IccCurve[];
}

export type IccTag =
  | LutTag
  | LutAbTag
  | { readonly type: 'text'; readonly text: string }
  | { readonly type: 'desc'; readonly text: string }
  | {
      readonly type: 'mluc';
      readonly records: readonly {
        readonly language: string;
        readonly country: string;
        readonly text: string;
      }[];
    }
  | { readonly type: 'XYZ'; readonly values: readonly (readonly [number, number, number])[] }
  | { readonly type: 'curve'; readonly curve: IccCurve }
  | { readonly type: 'sf32'; readonly values: readonly number[] }
  | { readonly type: 'sig'; readonly signature: string }
  | { readonly type: 'dtim'; readonly date: IccDate }
  | {
      readonly type: 'clrt';
      readonly colorants: readonly {
        readonly name: string;
        readonly pcs: readonly [number, number, number];
      }[];
    }
  | { readonly type: 'ncl2'; readonly deviceCount: number; readonly colours: readonly NamedColour[] }
  | {
      readonly type: 'meas';
      readonly observer: number;
      readonly backing: readonly [number, number, number];
      readonly geometry: number;
      readonly flare: number;
      readonly illuminant: number;
    }
  | {
      readonly type: 'view';
      readonly illuminant: readonly [number, number, number];
      readonly surround: readonly [number, number, number];
      readonly illuminantType: number;
    }
  | { readonly type: 'raw'; readonly bytes: Uint8Array };

export interface NamedColour {
  readonly name: string;
  readonly pcs: readonly number[];
  readonly device: readonly number[];
}
