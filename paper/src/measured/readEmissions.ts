import { emissionsOf } from '@melto/core/light/emissions';
import type { Emission } from '@melto/core/light/emissions';
import { cgatsTables } from '@melto/core/measured/cgatsTables';
import { columnsOf } from '@melto/core/measured/columns';
import { failure } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { csvTables } from './csvTables.ts';
import { cxfTables } from './cxfTables.ts';
import { decodeText } from './decodeText.ts';

/** Lights are small: a spectrum has some hundred numbers. */
const MOST_CHARACTERS = 4_000_000;

/** Reads measured lights of a file: CGATS and CSV with a column for each wavelength, CxF3, or wavelength and power in two columns. */
export function readEmissions(file: Uint8Array | string): Result<readonly Emission[]> {
  const read = typeof file === 'string' ? { ok: true as const, value: file } : decodeText(file);
  if (!read.ok) return read;
  const text = read.value.replace(/^\uFEFF/, '');
  if (text.length > MOST_CHARACTERS)
    return failure({
      code: 'light.too-large',
      expected: `at most ${MOST_CHARACTERS} characters`,
      found: String(text.length),
    });
  const tables = /^\s*</.test(text)
    ? cxfTables(text, 'EmissiveSpectrum')
    : /^\s*BEGIN_DATA/im.test(text)
      ? cgatsTables(text)
      : csvTables(text, isHeadOfLights);
  if (tables.ok) return emissionsOf(tables.value);
  // What is said of readings of prints would lead astray.
  const [issue] = tables.issues;
  return issue?.code === 'measured.no-head' ? emissionsOf([]) : tables;
}

function isHeadOfLights(names: readonly string[]): boolean {
  const kinds = columnsOf(names).map(({ kind }) => kind);
  return (
    kinds.filter((kind) => kind === 'spectral').length > 1 ||
    (kinds.includes('wavelength') && names.length > 1)
  );
}
