import type { GamutBody } from './gamutBody.ts';

/** A body, and what it was made by. */
export interface MadeBody {
  readonly body: GamutBody;
  /** With the white of its paper, or relative to its own white, as of a screen or a working space. */
  readonly white: 'paper' | 'its own';
  /** Most ink, 1 = 100 %: of a profile's table from Lab, or on a chart; undefined where no inks are limited. */
  readonly totalInk?: number;
  /** Distinct patches of a reading or an aim set that it was worked out from; undefined of a profile. */
  readonly patches?: number;
  /** Whether only its solids were known, with straight lines between them. */
  readonly cornersOnly?: boolean;
}

/** What a body was made by beyond its name, in a few words; empty of a profile with its paper's white. */
export function madeWords({ white, totalInk, patches, cornersOnly }: Omit<MadeBody, 'body'>): string {
  return [
    ...(patches === undefined ? [] : [`from ${patches} patches`]),
    ...(cornersOnly === true ? ['straight lines between its solids'] : []),
    white === 'paper' ? 'with its paper' : 'to its own white',
    ...(totalInk === undefined ? [] : [`ink to ${Math.round(100 * totalInk)} %`]),
  ].join(', ');
}
