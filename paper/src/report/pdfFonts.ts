import { join } from 'node:path';
import { Font } from '@react-pdf/renderer';

/** What the text faces lack: Greek letters, letters of other languages in names, and signs such as ≤. */
const FURTHER = ['Greek', 'Latin, further', 'Cyrillic', 'Vietnamese', 'Signs'];
export const TEXT_FAMILY = ['Text', ...FURTHER];
export const CODE_FAMILY = ['Code', ...FURTHER];

let registered = false;

/** Makes the fonts that ship with the application known to the PDF renderer; once. */
export function registerPdfFonts(): void {
  if (registered) return;
  const file = (path: string): string =>
    join(process.env['MELTO_ROOT'] ?? process.cwd(), 'node_modules/@fontsource', path);
  const face = (family: string, folder: string, name: string, weights = [400, 700]): void =>
    Font.register({
      family,
      fonts: [400, 700].map((fontWeight, i) => ({
        src: file(`${folder}/files/${name}-${weights[i]}-normal.woff`),
        fontWeight,
      })),
    });
  face('Text', 'atkinson-hyperlegible-next', 'atkinson-hyperlegible-next-latin');
  face('Code', 'atkinson-hyperlegible-mono', 'atkinson-hyperlegible-mono-latin');
  face('Greek', 'noto-sans', 'noto-sans-greek');
  face('Latin, further', 'noto-sans', 'noto-sans-latin-ext');
  face('Cyrillic', 'noto-sans', 'noto-sans-cyrillic');
  face('Vietnamese', 'noto-sans', 'noto-sans-vietnamese');
  // It has one weight: a thin sign among bold words is right, another sign is not.
  face('Signs', 'noto-sans-math', 'noto-sans-math-latin', [400, 400]);
  // Codes and figures are never broken.
  Font.registerHyphenationCallback((word) => [word]);
  registered = true;
}
