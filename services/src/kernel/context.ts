import type { StripPatches } from '@melto/core/device/instrument';
import type { PrintPath, SimulatedChange } from '@melto/core/device/printPath';
import type { MeasurementMode } from '@melto/core/device/instrument';
import type { Process } from '@melto/core/device/process';
import type { ColourBar } from '@melto/core/press/colourBar';
import type { IncomingSheet } from '@melto/core/press/incomingSheet';
import type { WorkElsewhere } from '@melto/core/profile/buildInkProfile';
import type { Result } from '@melto/core/result';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import type { UploadRead, UploadTask } from '@melto/paper/readUpload';
import type { FileTask } from '@melto/paper/report/drawFile';
import type { Acting, Database } from '@melto/store/database';
import type { KeptCache } from './keptCache.ts';

/** What a use case is given. Its database acts for one house and one person, and carries the connection within a unit of work. */
export interface Context extends Drivers {
  readonly database: Database;
  /** Things that never change once they are stored, as they were read. */
  readonly cache: KeptCache;
  /** Real time in milliseconds. */
  readonly now: () => number;
  /** Random seed for prints and charts. */
  readonly seed: () => number;
  /** Draws reports and slips; in a thread where many ask for them. */
  readonly drawFile: (task: FileTask) => Promise<Uint8Array>;
  /** Reads a file that somebody gave; in a thread with limits where many give them. */
  readonly readUpload: <K extends keyof UploadRead>(
    task: Extract<UploadTask, { readonly kind: K }>,
  ) => Promise<Result<UploadRead[K]>>;
  /** Works the intents of a profile out side by side, where there are threads for it. */
  readonly workIntent: WorkElsewhere | undefined;
}

/** What stands where hardware would: real drivers, simulated ones, or none at all. */
export interface Drivers {
  readonly printPath: PrintPath;
  /** What lies under a simulated instrument, as text for its bridge; undefined where no simulator is there. */
  readonly under: ((strip: StripUnder) => string) | undefined;
  readonly catalogue: readonly CatalogueEntry[];
  /** Undefined where no simulator is there. */
  readonly press: PressSimulation | undefined;
  /** What was made to happen at the device of a condition; nothing at real ones. */
  readonly circumstances: (context: Context, condition: number) => Promise<readonly SimulatedChange[]>;
}

/** A simulated press that runs: what stands where a real one and its counter would. */
export interface PressSimulation {
  /** How a press is when a run begins, as text that only the simulator reads; null for devices that are none of its presses. */
  begin(run: {
    readonly device: string;
    readonly stock: string;
    readonly mode: string;
    readonly seed: number;
    readonly inks: readonly string[];
    readonly bar: ColourBar;
    /** Curves of the plates, by channel C, M, Y, K. */
    readonly curves: ToneCurves | undefined;
  }): string | null;
  /** The bar of the sheet at a stand of the counter, as an instrument at the press reads it from left to right. */
  read(asked: {
    readonly simulated: string;
    readonly bar: ColourBar;
    readonly mode: MeasurementMode;
    readonly moves: readonly {
      readonly unit: number;
      readonly impression: number;
      readonly changes: readonly number[];
    }[];
    readonly impression: number;
  }): IncomingSheet;
}

/** A strip of a simulated sheet, and the instrument that reads it. */
export interface StripUnder {
  readonly printState: string;
  readonly patches: StripPatches;
  /** The strip that a hand takes by mistake. */
  readonly otherPatches: StripPatches;
  /** Domain time of the instrument's last white tile. */
  readonly tileMs: number | undefined;
  /** From when on it reads otherwise than it was certified. */
  readonly biasFromMs: number | undefined;
}

/** A device that a driver offers, with its stocks. */
export interface CatalogueEntry {
  readonly id: string;
  readonly name: string;
  readonly code: string;
  readonly kind: string;
  readonly process: Process;
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

/** The same context for another house or person. */
export function actingAs(context: Context, acting: Acting): Context {
  return { ...context, database: context.database.as(acting) };
}

/**
 * Runs `work` as one change: all of it is kept or none, and what `inner` reads sees what it has written. Within a unit
 * of work it joins that one. It may be run again where others were in the way.
 */
export function unitOfWork<T>(context: Context, work: (inner: Context) => Promise<T>): Promise<T> {
  return context.database.transaction((database) => work({ ...context, database }));
}
