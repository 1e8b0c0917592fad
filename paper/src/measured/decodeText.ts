import { failure, success } from '@melto/core/result';
import type { Result } from '@melto/core/result';

/** Bytes that one file of measurements may have. */
export const MEASURED_MOST_BYTES = 32_000_000;

/** The text of a file: UTF-8, UTF-16 with or without its mark, else Windows Latin 1. Binary files are refused. */
export function decodeText(bytes: Uint8Array): Result<string> {
  if (bytes.length === 0)
    return failure({ code: 'measured.empty', expected: 'a text', found: 'an empty file' });
  if (bytes.length > MEASURED_MOST_BYTES)
    return failure({
      code: 'measured.too-large',
      expected: `at most ${MEASURED_MOST_BYTES / 1e6} MB`,
      found: `${(bytes.length / 1e6).toFixed(1)} MB`,
    });
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return success(new TextDecoder('utf-16le').decode(bytes));
  if (a === 0xfe && b === 0xff) return success(new TextDecoder('utf-16be').decode(bytes));
  const wide = zeros(bytes);
  if (wide !== undefined) return success(new TextDecoder(wide).decode(bytes));
  if (bytes.subarray(0, 4096).includes(0))
    return failure({
      code: 'measured.binary',
      expected: 'a text: CGATS, CxF or CSV',
      found: 'a binary file',
    });
  try {
    return success(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    return success(new TextDecoder('windows-1252').decode(bytes));
  }
}

/** UTF-16 without its mark: Latin text has a zero in every second byte. */
function zeros(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | undefined {
  const length = Math.min(bytes.length, 2000) & ~1;
  if (length < 8) return undefined;
  const count = [0, 0];
  for (let i = 0; i < length; i++) if (bytes[i] === 0) count[i % 2]++;
  if (count[1] > 0.4 * length && count[0] === 0) return 'utf-16le';
  return count[0] > 0.4 * length && count[1] === 0 ? 'utf-16be' : undefined;
}
