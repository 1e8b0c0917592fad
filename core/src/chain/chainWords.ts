import type { ChainFinding } from './chainCause.ts';

const figure = (deltaE: number): string => `${deltaE.toFixed(1)} ΔE00`;

/** Mean ΔE00 up to which a job that went the right way is as near as prints of one chain are. */
const NEAR = 2;

/** What a sheet says of the way of the job, in one sentence. */
export function chainSentence({ cause, says, fromRight, fromBest, tried }: ChainFinding): string {
  if (cause === 'right')
    return fromRight <= NEAR
      ? `The job went as it should: the sheet is ${figure(fromRight)} from the profile on the mean.`
      : `Nothing that is known to go wrong explains the sheet, which is ${figure(fromRight)} from the profile: the device may have moved. Check it by a control wedge.`;
  const nearest = tried[0]?.cause === 'right' ? '' : `; nearest is that ${tried[0]?.says ?? ''}`;
  if (cause === 'unknown')
    return `The job did not go as it should (${figure(fromRight)} from the profile on the mean), and nothing that is known explains it${nearest}.`;
  return `The sheet looks as if ${says.join(', or ')}: ${figure(fromBest)} on the mean, where the right way would leave ${figure(fromRight)}.`;
}

/** What to do about it. */
export const CHAIN_REMEDIES: Readonly<Record<ChainFinding['cause'], string>> = {
  right: 'Nothing is to be done.',
  unknown: 'Look at the settings of the program and the driver, then print the picture again.',
  'no-profile':
    'Choose the profile in the program that prints, or in the front end; in one of both, and nowhere else.',
  twice:
    'Let one program convert: where the layout program does, switch colour management off in driver and front end.',
  intent:
    'Set this intent and the black point in the program that converts, or say that jobs use the other one.',
  source:
    'Keep the profiles that pictures bring along: the program puts another in the place of theirs, or ignores it.',
  paper: 'Look at the stock that lies in the device, and at the label on its box.',
};
