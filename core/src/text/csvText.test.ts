import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { csvText } from './csvText.ts';

describe('a table as CSV', () => {
  it('quotes what would break a line, and ends each', () => {
    expect(
      csvText([
        ['a', 'b"c'],
        ['x\ny', 1.5],
      ]),
    ).toBe('a,"b""c"\r\n"x\ny",1.5\r\n');
    expect(csvText([])).toBe('');
  });

  it('leaves no formula, and leaves numbers alone', () => {
    const cells = ['=1+1', '@SUM(A1)', '+cmd|x', '-2+3', '\t=1', '-', "=cmd|' /C calc'!A0"];
    const [row] = Papa.parse<string[]>(csvText([cells])).data;
    expect(row).toEqual(cells.map((cell) => `'${cell}`));
    const numbers = ['-1.50', '+2', '-0.5e-3', '-,5', '-12 %', '−3', '3-4', 'a=b'];
    expect(Papa.parse<string[]>(csvText([numbers])).data[0]).toEqual(numbers);
    expect(csvText([[-1.5, 2]])).toBe('-1.5,2\r\n');
  });
});
