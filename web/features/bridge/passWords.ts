import type { NoPass } from '@melto/bridge/bridgeClient';

const WORDS: Readonly<Record<string, string>> = {
  'too-fast': 'Too fast: move the instrument evenly, about four seconds for a strip.',
  'off-row': 'The instrument left the row. Lay the ruler along the strip and read it again.',
  'started-late': 'Started late: begin on the white paper before the first patch.',
  'tile-needed': 'The white tile is due. Press T to calibrate, then read the strip.',
  busy: 'The instrument is at work for another desk. Wait for it, or read there.',
  'no-mode': 'The instrument does not measure in this mode. Choose another mode.',
  'nothing-under': 'This instrument is simulated: it reads only what a simulated device printed.',
  'bridge-gone': 'The instrument bridge does not answer. Start it again; what was read is kept.',
  'not-understood':
    'The instrument bridge answered in a form that is not understood. Nothing was stored of it.',
};

/** Why a pass came to nothing, and what to do. */
export function passWords({ reason, words, found }: NoPass, instrument: string, patches?: number): string {
  if (reason === 'patch-count')
    return `${instrument} saw ${found ?? 'another count of'} patches${patches === undefined ? '' : `, not ${patches}`}. Begin on the white before the first patch, end on the white after the last.`;
  if (reason === 'no-instrument') return `${instrument} is not there any more. Connect it again.`;
  return WORDS[reason] ?? (words === undefined ? `${instrument} could not read (${reason}).` : words);
}

/** What a hand did wrong is done again at once; anything else waits for the person. */
export const HAND_REASONS: ReadonlySet<string> = new Set([
  'too-fast',
  'off-row',
  'started-late',
  'patch-count',
  'other-strip',
]);
