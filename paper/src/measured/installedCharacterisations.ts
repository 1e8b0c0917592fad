import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PUBLISHED_CONDITIONS } from '@melto/core/conformity/data/publishedConditions';

/** Where Debian's package of free profiles puts its characterisation data. */
const FOLDER = '/usr/share/color/icc';

/** Texts of the published characterisations that are on this machine, by the condition's key. */
export function installedCharacterisations(folder = FOLDER): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  let files: string[];
  try {
    files = readdirSync(folder);
  } catch {
    // The package is not installed: the conditions are completed from their solids.
    return found;
  }
  for (const { key } of PUBLISHED_CONDITIONS) {
    const file = files.find(
      (name) => name.toLowerCase().replace(/\.[^.]*$/, '') === key && !/\.icc$/i.test(name),
    );
    if (file !== undefined) found.set(key, readFileSync(join(folder, file), 'latin1'));
  }
  return found;
}
