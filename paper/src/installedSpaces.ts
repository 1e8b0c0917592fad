import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { profileText } from '@melto/core/icc/profileText';
import { readIcc } from '@melto/core/icc/readIcc';

/** Where Debian's package of free profiles puts them. */
const FOLDER = '/usr/share/color/icc';
const MOST_BYTES = 4_000_000;

/** A standard working space that is on this machine. */
export interface InstalledSpace {
  /** Its file's name without its ending. */
  readonly key: string;
  readonly name: string;
  readonly space: string;
  readonly content: Uint8Array;
}

let known: readonly InstalledSpace[] | undefined;

/** Profiles of three channels and more that describe a working space or a device; what cannot be read is left out. */
export function installedSpaces(folder = FOLDER): readonly InstalledSpace[] {
  if (folder === FOLDER && known !== undefined) return known;
  let files: string[];
  try {
    files = readdirSync(/*turbopackIgnore: true*/ folder).filter((name) => /^[\w-]{1,80}\.icc$/i.test(name));
  } catch {
    // The package is not installed.
    return [];
  }
  const found = files.sort().flatMap((file): InstalledSpace[] => {
    const content = readFileSync(/*turbopackIgnore: true*/ join(/*turbopackIgnore: true*/ folder, file));
    if (content.length > MOST_BYTES) return [];
    const read = readIcc(content);
    if (!read.ok) return [];
    const { header } = read.value;
    const space = header.colourSpace.trim();
    const key = file.replace(/\.icc$/i, '');
    // Connection spaces have no body of their own, and codes of film are no space that pictures are handed out in.
    if (!['RGB', 'CMYK'].includes(space) || !['mntr', 'prtr', 'spac'].includes(header.deviceClass)) return [];
    if (/^cine/i.test(key)) return [];
    return [{ key, name: profileText(read.value, 'desc') ?? key, space, content }];
  });
  if (folder === FOLDER) known = found;
  return found;
}
