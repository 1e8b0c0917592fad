import { cgatsTables } from '@melto/core/measured/cgatsTables';
import { interpretTables } from '@melto/core/measured/interpretTables';
import type { Answers, Measurement } from '@melto/core/measured/measurement';
import { MEASURED_LIMITS } from '@melto/core/measured/measuredTable';
import type { MeasuredTable } from '@melto/core/measured/measuredTable';
import { failure } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { csvTables } from './csvTables.ts';
import { cxfTables } from './cxfTables.ts';
import { decodeText } from './decodeText.ts';

/**
 * Reads a file of measurements in any of the forms that instruments and programs write: CGATS.17 and its dialects, CxF3,
 * CSV and pasted tables. What the file does not tell comes back as questions; they are answered in `answers`.
 */
export function readMeasurement(file: Uint8Array | string, answers: Answers = {}): Result<Measurement> {
  const text = typeof file === 'string' ? { ok: true as const, value: file } : decodeText(file);
  if (!text.ok) return text;
  if (text.value.length > MEASURED_LIMITS.characters)
    return failure({
      code: 'measured.too-large',
      expected: `at most ${MEASURED_LIMITS.characters} characters`,
      found: String(text.value.length),
    });
  const tables = tablesOf(text.value.replace(/^\uFEFF/, ''));
  return tables.ok ? interpretTables(tables.value, answers) : tables;
}

function tablesOf(text: string): Result<readonly MeasuredTable[]> {
  if (/^\s*</.test(text)) return cxfTables(text);
  return /^\s*BEGIN_DATA/im.test(text) ? cgatsTables(text) : csvTables(text);
}
