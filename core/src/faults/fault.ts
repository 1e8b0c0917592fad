/** What the data say may be wrong with a sheet or a strip. */
export interface Fault {
  readonly kind: FaultKind;
  /** 0..1, how sure the detector is. */
  readonly confidence: number;
  /** Strips concerned, counted from 1; empty where it is the whole sheet. */
  readonly strips: readonly number[];
  /** The figures behind it, for the person who doubts it. */
  readonly figures: Readonly<Record<string, number>>;
}

export type FaultKind =
  | 'colour-management-on'
  | 'curves-on'
  | 'curves-missing'
  | 'wrong-side'
  | 'strips-swapped'
  | 'strip-backwards'
  | 'paper-unlikely'
  | 'read-early'
  | 'outlier-patches';

/** What is said of a fault to the person, and how to go on. */
export interface FaultWords {
  readonly says: string;
  readonly todo: string;
  /** In few words, where the print has to be made again: nothing built on such a reading would be right. */
  readonly spoils?: string;
}

export const FAULT_WORDS: Readonly<Record<FaultKind, FaultWords>> = {
  'colour-management-on': {
    says: 'The sheet looks as if colour management was left on while it was printed.',
    todo: 'Set the driver to no colour management, tick the point in the settings record, and print the sheet again.',
    spoils: 'colour management was on',
  },
  'curves-on': {
    says: 'The ramps look as if curves were loaded in the front end while none were asked for.',
    todo: 'Set the front end to linear, no curves, tick the point in the settings record, and print the sheet again.',
    spoils: 'curves were loaded',
  },
  'curves-missing': {
    says: 'The ramps look as if the curves of this condition were not loaded.',
    todo: 'Load the curves that are in force into the front end and print the sheet again.',
    spoils: 'the curves were not loaded',
  },
  'wrong-side': {
    says: 'The darkest patch is far lighter than this stock usually gives: the wrong side, or the wrong media setting.',
    todo: 'Check the side and the media setting, and print the sheet again.',
    spoils: 'wrong side',
  },
  'strips-swapped': {
    says: 'Strips were read in another order than on the sheet.',
    todo: 'Put them in their places, or read them again.',
  },
  'strip-backwards': {
    says: 'A strip was read from right to left; Melto has turned it.',
    todo: 'Nothing to do.',
  },
  'paper-unlikely': {
    says: 'The patches without ink are too dark or too coloured for a paper.',
    todo: 'Check that the right sheet lies under the instrument, and calibrate on the white tile.',
  },
  'read-early': {
    says: 'The sheet was read before its rest was over.',
    todo: 'Read it again when it has rested; what is built on this reading is marked.',
  },
  'outlier-patches': {
    says: 'Copies of the same patch differ by more than a sheet does of itself.',
    todo: 'Look at them on the sheet and read their strips again.',
  },
};

/** The first fault that spoils what would be built on a reading. */
export function spoilingFault(faults: readonly Fault[]): Fault | undefined {
  return faults.find(({ kind }) => FAULT_WORDS[kind].spoils !== undefined);
}

/** Faults that are said with what is built on a reading; one that was put right by Melto is none. */
export function faultsToSay(faults: readonly Fault[]): readonly Fault[] {
  return faults.filter(({ kind }) => kind !== 'strip-backwards' && kind !== 'read-early');
}
