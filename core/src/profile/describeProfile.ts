/** Parts of a profile's name, in the order of the pattern. */
export interface NameParts {
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  /** ISO date, for example 2026-03-14. */
  readonly date: string;
}

/** Fills a name pattern such as `{device}_{stock}_{mode}_{date}`; only letters, digits, `-`, `_` and `.` remain. */
export function profileName(pattern: string, parts: NameParts): string {
  const filled = pattern.replace(/\{(device|stock|mode|date)\}/g, (_, key: keyof NameParts) =>
    parts[key].replaceAll(' ', ''),
  );
  return (
    filled
      .normalize('NFKD')
      .replace(/[^A-Za-z0-9._-]+/g, '')
      .slice(0, 80) || 'profile'
  );
}

export const DEFAULT_NAME_PATTERN = '{device}_{stock}_{mode}_{date}';
