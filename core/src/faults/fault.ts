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

/** What is said to the person, and how to go on. */
export const FAULT_WORDS: Readonly<Record<FaultKind, { readonly says: string; readonly todo: string }>> = {
  'colour-management-on': {
    says: 'The sheet looks as if colour management was left on while it was printed.',
    todo: 'Set the driver to no colour management, tick the point in the settings record, and print the sheet again.',
  },
  'curves-on': {
    says: 'The ramps look as if curves were loaded in the front end while none were asked for.',
    todo: 'Set the front end to linear, no curves, tick the point in the settings record, and print the sheet again.',
  },
  'curves-missing': {
    says: 'The ramps look as if the curves of this condition were not loaded.',
    todo: 'Load the curves that are in force into the front end and print the sheet again.',
  },
  'wrong-side': {
    says: 'The darkest patch is far lighter than this stock usually gives: the wrong side, or the wrong media setting.',
    todo: 'Check the side and the media setting, and print the sheet again.',
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
