import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument } from 'pdf-lib';
import { describe, expect, it } from 'vitest';
import { reportPdf } from './reportPdf.ts';
import type { ReportModel, ReportRow } from './reportModel.ts';
import { wrapCell } from './wrapCell.ts';

const row = (name: string, status?: ReportRow['status']): ReportRow => ({
  ...(status === undefined ? { swatch: { measured: '#808080', aim: '#707070' } } : { status }),
  cells: [name, '50.00 10.00 20.00', '1.00'],
});
const model = (rows: readonly ReportRow[]): ReportModel => ({
  title: 'Conformity check',
  verdict: { status: 'conforms', words: 'conforms', reason: 'all is well' },
  facts: [['Sheet', 'HRN-0001']],
  notices: [],
  statement: ['The aims are the house’s.'],
  sections: [
    {
      kind: 'table',
      title: 'All patches',
      columns: [
        { name: 'Patch', width: 2 },
        { name: 'Measured', numeric: true, width: 2 },
        { name: 'ΔE00', numeric: true, width: 1 },
      ],
      rows,
    },
  ],
});
/** What a reader of the PDF finds, line by line, by poppler. */
async function textLines(rows: readonly ReportRow[]): Promise<string[]> {
  const file = join(mkdtempSync(join(tmpdir(), 'melto-report-')), 'report.pdf');
  writeFileSync(file, await reportPdf(model(rows)));
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).split('\n');
}
const pages = async (rows: readonly ReportRow[]): Promise<number> =>
  (await PDFDocument.load(await reportPdf(model(rows)))).getPageCount();
const many = (count: number, name = (i: number) => `patch ${i}`): ReportRow[] =>
  Array.from({ length: count }, (_, i) => row(name(i)));

describe('a table of many rows', () => {
  it('stays on the first page while it is short', async () => {
    expect(await pages(many(16))).toBe(1);
  });

  it('has pages of its own, 49 lines on each', async () => {
    expect(await pages(many(49))).toBe(2);
    expect(await pages(many(50))).toBe(3);
    expect(await pages(many(490))).toBe(11);
  });

  it('loses no row, and keeps the cells of a row on one line', async () => {
    const rows = Array.from({ length: 120 }, (_, i): ReportRow => ({
      swatch: { measured: '#808080', aim: '#707070' },
      cells: [`patch ${i}`, `${(i / 4).toFixed(2)} 1.00 −2.00`, (i / 7).toFixed(2)],
    }));
    const lines = await textLines(rows);
    for (const { cells } of rows) {
      const found = lines.filter((line) => line.trim().startsWith(`${cells[0]} `));
      expect(found).toHaveLength(1);
      expect(found[0].trim().split(/ {2,}/)).toEqual(cells);
    }
    expect(lines.filter((line) => line.includes('part 2 of 3'))).toHaveLength(1);
    expect(lines.filter((line) => line.includes('conforms') && /4 of 4/.test(line))).toHaveLength(1);
  });

  it('takes more pages where names take more lines', async () => {
    const long =
      'a name that is much longer than its column and goes on over three lines of the table, or four';
    const lines = wrapCell(long, ((595.28 - 84 - 28) * 2) / 5 - 6, 8.5).length;
    expect(lines).toBeGreaterThan(1);
    expect(await pages(many(49, () => long))).toBe(1 + Math.ceil(49 / Math.floor(49 / lines)));
  });

  it('keeps the shapes of rows with a verdict, which go on over the page', async () => {
    const count = await pages(Array.from({ length: 60 }, (_, i) => row(`metric ${i}`, 'near')));
    expect(count).toBeGreaterThan(1);
    expect(count).toBeLessThan(4);
  });
});

describe('the lines of a cell', () => {
  it('are one where it fits', () => {
    expect(wrapCell('paper', 100, 8.5)).toEqual(['paper']);
    expect(wrapCell('', 100, 8.5)).toEqual(['']);
  });

  it('break at spaces and lose nothing', () => {
    const text = 'black over colour, read again';
    const lines = wrapCell(text, 60, 8.5);
    expect(lines.length).toBeGreaterThan(1);
    expect(lines.join(' ')).toBe(text);
  });

  it('break inside a word that is longer than a line', () => {
    const lines = wrapCell('x'.repeat(80), 50, 8.5);
    expect(lines.length).toBeGreaterThan(4);
    expect(lines.join('')).toBe('x'.repeat(80));
  });

  it('come to an end in a column that is narrower than a letter', () => {
    expect(wrapCell('wide', 0.1, 8.5).join('')).toBe('wide');
  });
});
