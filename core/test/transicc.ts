import { execFileSync } from 'node:child_process';

/** What LittleCMS makes of rows of `width` values; `options` are those of its command, without the leading quiet ones. */
export function transicc(rows: Float64Array, width: number, options: readonly string[]): Float64Array {
  const lines: string[] = [];
  for (let i = 0; i < rows.length; i += width) lines.push(rows.subarray(i, i + width).join(' '));
  const text = execFileSync('transicc', ['-v0', '-n', '-c0', ...options], {
    input: `${lines.join('\n')}\n`,
    encoding: 'utf8',
    maxBuffer: 1e9,
    stdio: ['pipe', 'pipe', 'ignore'],
  });
  return Float64Array.from(text.trim().split(/\s+/), Number);
}
