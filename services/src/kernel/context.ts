import type { Instrument } from '@melto/core/device/instrument';
import type { PrintPath } from '@melto/core/device/printPath';
import type { PdfTask } from '@melto/paper/report/drawPdf';
import type { Database } from '@melto/store/database';

/** What use cases are given; only the composition knows which parts are simulated. */
export interface Services {
  readonly database: Database;
  readonly printPath: PrintPath;
  readonly instruments: ReadonlyMap<string, Instrument>;
  readonly catalogue: readonly CatalogueEntry[];
  /** Real time in milliseconds. */
  readonly now: () => number;
  /** Random seed for prints and charts. */
  readonly seed: () => number;
  /** Draws reports and slips; in a thread where many ask for them. */
  readonly drawPdf: (task: PdfTask) => Promise<Uint8Array>;
}

/** A device that a driver offers, with its stocks. */
export interface CatalogueEntry {
  readonly id: string;
  readonly name: string;
  readonly code: string;
  readonly kind: string;
  readonly space: 'rgb' | 'cmyk' | 'cmykog';
  readonly modes: readonly string[];
  readonly inkSet: string;
  /** Conversions that a simulated driver can be told to leave on. */
  readonly conversions: readonly string[];
  readonly stocks: readonly {
    readonly id: string;
    readonly name: string;
    readonly finish: 'matt' | 'semi-matt' | 'gloss';
    readonly restMinutes: number;
  }[];
}

/** The one local person, until sign-in comes. */
export const LOCAL_PERSON = 1;
