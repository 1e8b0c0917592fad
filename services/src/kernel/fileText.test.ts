import { expect, it } from 'vitest';
import { fileText } from './fileText.ts';
import { Problem } from './problem.ts';

it('letters of a file stay what they are, however they are written; what is no text is refused', () => {
  expect(fileText(Buffer.from('Größe', 'utf8'))).toBe('Größe');
  expect(fileText(Buffer.from('Größe', 'latin1'))).toBe('Größe');
  expect(fileText(Buffer.from('\uFEFFGröße und mehr', 'utf16le'))).toBe('Größe und mehr');
  expect(fileText(Buffer.from('\uFEFFa', 'utf8'))).toBe('a');
  expect(() => fileText(new Uint8Array(0))).toThrow(Problem);
  expect(() => fileText(Uint8Array.of(1, 0, 0, 7))).toThrow(/binary/);
});
