import { mediaWhite } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { CMYK, RGB } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { WHITE_ICC } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { inspectProfile } from '@melto/core/profile/inspectProfile';
import { issueText } from '@melto/core/result';
import { readBytes, report, writeFile } from './files.ts';
import { UsageError } from './usageError.ts';

export function readProfile(path: string, bytes = readBytes(path)): IccProfile {
  const result = readIcc(bytes);
  if (!result.ok) throw new UsageError(`${path}: ${result.issues.map(issueText).join('; ')}`);
  return result.value;
}

/** A profile that CMYK values are meant by, and its bytes. */
export function inkProfile(path: string): { readonly profile: IccProfile; readonly bytes: Uint8Array } {
  const bytes = readBytes(path);
  const profile = readProfile(path, bytes);
  const space = profile.header.colourSpace.trim();
  if (space !== 'CMYK') throw new UsageError(`${path}: found a profile of ${space}, expected CMYK`);
  return { profile, bytes };
}

/** The process whose values a page through a profile is written in. */
export function pageProcess(path: string, { header }: IccProfile): Process {
  const space = header.colourSpace.trim();
  const process = [RGB, CMYK].find(({ name }) => name === space);
  if (process === undefined)
    throw new UsageError(
      `${path}: found a profile of ${space}, expected RGB or CMYK for a page of its values`,
    );
  return process;
}

export function profileInspect(
  path: string,
  options: { readonly json?: boolean; readonly data?: string },
): void {
  const profile = readProfile(path);
  const { header } = profile;
  const white = mediaWhite(profile);
  const paper = xyzToLab([white[0], white[1], white[2]], WHITE_ICC);
  const { tags, version, kind, figures, mostInk, roundTrip, intents, data, remarks } =
    inspectProfile(profile);
  if (options.data !== undefined) {
    if (data === undefined) throw new UsageError(`${path}: it carries no characterisation data`);
    writeFile(options.data, data);
  }
  const space = header.colourSpace.trim();
  report(
    options.json,
    {
      ...{ version, class: header.deviceClass, space, pcs: header.pcs.trim(), paper, tags, intents },
      ...{ figures, mostInk, roundTrip, carriesData: data !== undefined, remarks },
    },
    [
      `version ${version}, ${kind}, ${space} to ${header.pcs.trim()}`,
      `media white L* ${paper[0].toFixed(2)} a* ${paper[1].toFixed(2)} b* ${paper[2].toFixed(2)}`,
      ...(figures === undefined
        ? []
        : [
            `darkest neutral L* ${figures.black[0].toFixed(2)} a* ${figures.black[1].toFixed(2)} b* ${figures.black[2].toFixed(2)}`,
          ]),
      ...(mostInk === undefined ? [] : [`most ink ${(100 * mostInk).toFixed(1)} %`]),
      ...(roundTrip === undefined
        ? []
        : [
            `round trip ΔE00 mean ${roundTrip.mean.toFixed(2)}, 95 % ${roundTrip.p95.toFixed(2)}, largest ${roundTrip.largest.toFixed(2)}`,
          ]),
      ...(intents.length === 0 ? [] : [`tables of their own: ${intents.join(', ')}`]),
      ...(data === undefined ? [] : ['carries its characterisation data']),
      ...tags.map(({ signature, type, says }) => `${signature.padEnd(5)} ${type.padEnd(6)} ${says}`),
      ...remarks,
    ],
  );
}
