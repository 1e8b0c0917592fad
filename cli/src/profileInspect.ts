import { mediaWhite } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import type { IccProfile, IccTag } from '@melto/core/icc/iccTypes';
import { WHITE_ICC } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { issueText } from '@melto/core/result';
import { readBytes, report } from './files.ts';
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

export function profileInspect(path: string, options: { readonly json?: boolean }): void {
  const profile = readProfile(path);
  const { header } = profile;
  const white = mediaWhite(profile);
  const paper = xyzToLab([white[0], white[1], white[2]], WHITE_ICC);
  const tags = [...profile.tags].map(([signature, tag]) => ({
    signature,
    type: tag.type,
    says: describe(tag),
  }));
  report(
    options.json,
    {
      version: `${header.version.major}.${header.version.minor}`,
      class: header.deviceClass,
      space: header.colourSpace.trim(),
      pcs: header.pcs.trim(),
      paper,
      tags,
    },
    [
      `version ${header.version.major}.${header.version.minor}, class ${header.deviceClass}, ${header.colourSpace.trim()} to ${header.pcs.trim()}`,
      `media white L* ${paper[0].toFixed(2)} a* ${paper[1].toFixed(2)} b* ${paper[2].toFixed(2)}`,
      ...tags.map(({ signature, type, says }) => `${signature.padEnd(5)} ${type.padEnd(6)} ${says}`),
    ],
  );
}

function describe(tag: IccTag): string {
  switch (tag.type) {
    case 'text':
    case 'desc':
      return tag.text.length > 70 ? `${tag.text.length} characters` : tag.text;
    case 'mluc':
      return tag.records.map(({ text }) => text).join(' / ');
    case 'XYZ':
      return tag.values.map((value) => value.map((v) => v.toFixed(4)).join(' ')).join(', ');
    case 'lut8':
    case 'lut16':
      return `${tag.inputs} to ${tag.outputs} channels, table of ${tag.clut.grid.join('×')}`;
    case 'mAB':
    case 'mBA':
      return `${tag.inputs} to ${tag.outputs} channels, ${tag.clut === undefined ? 'no table' : `table of ${tag.clut.grid.join('×')}`}`;
    default:
      return '';
  }
}
