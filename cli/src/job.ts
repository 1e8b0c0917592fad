import { basename } from 'node:path';
import { chainCause } from '@melto/core/chain/chainCause';
import { whiteRows } from '@melto/core/chain/chainChart';
import { chainHypotheses } from '@melto/core/chain/chainHypotheses';
import { CHAIN_INTENTS } from '@melto/core/chain/chainIntent';
import type { ChainIntent } from '@melto/core/chain/chainIntent';
import { chainSentence, CHAIN_REMEDIES } from '@melto/core/chain/chainWords';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { measuredAs, oneOf, readMeasuredFile, report, rgbDevice } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface JobOptions {
  readonly measured: string;
  readonly measuredAs?: string;
  readonly profile: string;
  readonly intent: string;
  readonly papers?: readonly string[];
  readonly json?: boolean;
}

const SPACES = ['RGB ', 'CMYK'];

/** Says from a measured picture of a job how it was converted; the exit code tells whether as it should. */
export function job(options: JobOptions): number {
  const intent = oneOf(options.intent, '--intent', Object.keys(CHAIN_INTENTS) as ChainIntent[]);
  const set = readMeasuredFile(options.measured, measuredAs(options.measuredAs));
  const rgb = rgbDevice(options.measured, set);
  const xyz = patchXyz(set);
  if (xyz === undefined)
    throw new UsageError(`${options.measured}: found no colours, expected XYZ, Lab or spectra`);
  const whites = whiteRows(rgb);
  if (whites.length === 0)
    throw new UsageError(`${options.measured}: found no patch 255 255 255, expected the picture of a job`);
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  const outputProfile = (path: string): ReturnType<typeof readProfile> => {
    const profile = readProfile(path);
    if (!SPACES.includes(profile.header.colourSpace))
      throw new UsageError(
        `${path}: found a profile of ${profile.header.colourSpace.trim()}, expected RGB or CMYK`,
      );
    return profile;
  };
  const papers = (options.papers ?? []).map((path) => ({
    name: basename(path),
    profile: outputProfile(path),
  }));
  const finding = chainCause(
    lab,
    chainHypotheses({ rgb, profile: outputProfile(options.profile), intent, papers }),
    whites,
  );
  report(options.json, { ...finding }, [
    chainSentence(finding),
    ...(finding.cause === 'right' ? [] : [CHAIN_REMEDIES[finding.cause]]),
    ...finding.tried.map(({ says, mean }) => `${mean.toFixed(2).padStart(7)}  ${says}`),
  ]);
  return finding.cause === 'right' ? 0 : 1;
}
