import { basename } from 'node:path';
import { chainCause } from '@melto/core/chain/chainCause';
import { whiteRows } from '@melto/core/chain/chainChart';
import { chainHypotheses } from '@melto/core/chain/chainHypotheses';
import { CHAIN_INTENTS } from '@melto/core/chain/chainIntent';
import type { ChainIntent } from '@melto/core/chain/chainIntent';
import { leadingBothWays, processOf } from '@melto/core/chain/jobSource';
import type { JobSource } from '@melto/core/chain/jobSource';
import { chainSentence, CHAIN_REMEDIES } from '@melto/core/chain/chainWords';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { issueText } from '@melto/core/result';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { sameProcess } from '@melto/core/device/process';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { deviceOf, measuredAs, oneOf, readMeasuredFile, report } from './files.ts';
import { inkProfile, readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface JobOptions {
  readonly measured: string;
  readonly measuredAs?: string;
  readonly profile: string;
  readonly intent: string;
  readonly source?: string;
  readonly papers?: readonly string[];
  readonly json?: boolean;
}

const SPACES = ['RGB ', 'CMYK'];

/** Says from a measured picture of a job how it was converted; the exit code tells whether as it should. */
export function job(options: JobOptions): number {
  const intent = oneOf(options.intent, '--intent', Object.keys(CHAIN_INTENTS) as ChainIntent[]);
  const set = readMeasuredFile(options.measured, measuredAs(options.measuredAs));
  const source: JobSource =
    options.source === undefined
      ? 'sRGB'
      : {
          name: basename(options.source),
          profile: whole(options.source, inkProfile(options.source).profile),
        };
  const { device: values, process } = deviceOf(options.measured, set);
  if (!sameProcess(process, processOf(source)))
    throw new UsageError(
      `${options.measured}: found ${process.name} values, expected ${processOf(source).name}${source === 'sRGB' ? ', or --source with the profile that the inks are meant by' : ''}`,
    );
  const xyz = patchXyz(set);
  if (xyz === undefined)
    throw new UsageError(`${options.measured}: found no colours, expected XYZ, Lab or spectra`);
  const whites = whiteRows(values, process);
  if (whites.length === 0)
    throw new UsageError(`${options.measured}: found no bare paper, expected the picture of a job`);
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  const outputProfile = (path: string): ReturnType<typeof readProfile> => {
    const profile = readProfile(path);
    if (!SPACES.includes(profile.header.colourSpace))
      throw new UsageError(
        `${path}: found a profile of ${profile.header.colourSpace.trim()}, expected RGB or CMYK`,
      );
    return whole(path, profile);
  };
  const papers = (options.papers ?? []).map((path) => ({
    name: basename(path),
    profile: outputProfile(path),
  }));
  const finding = chainCause(
    lab,
    chainHypotheses({ values, source, profile: outputProfile(options.profile), intent, papers }),
    whites,
  );
  report(options.json, { ...finding }, [
    chainSentence(finding),
    ...(finding.cause === 'right' ? [] : [CHAIN_REMEDIES[finding.cause]]),
    ...finding.tried.map(({ says, mean }) => `${mean.toFixed(2).padStart(7)}  ${says}`),
  ]);
  return finding.cause === 'right' ? 0 : 1;
}

function whole(path: string, profile: IccProfile): IccProfile {
  const both = leadingBothWays(profile);
  if (!both.ok) throw new UsageError(`${path}: ${both.issues.map(issueText).join('; ')}`);
  return both.value;
}
