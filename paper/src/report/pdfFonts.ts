import { join } from 'node:path';
import { Font } from '@react-pdf/renderer';

/** Text face first; the second brings the Greek letters that it lacks. */
export const TEXT_FAMILY = ['Text', 'Greek'];
export const CODE_FAMILY = ['Code', 'Greek'];

let registered = false;

/** Makes the fonts that ship with the application known to the PDF renderer; once. */
export function registerPdfFonts(): void {
  if (registered) return;
  const file = (path: string): string =>
    join(process.env['MELTO_ROOT'] ?? process.cwd(), 'node_modules/@fontsource', path);
  const face = (family: string, folder: string, name: string): void =>
    Font.register({
      family,
      fonts: [400, 700].map((fontWeight) => ({
        src: file(`${folder}/files/${name}-${fontWeight}-normal.woff`),
        fontWeight,
      })),
    });
  face('Text', 'atkinson-hyperlegible-next', 'atkinson-hyperlegible-next-latin');
  face('Code', 'atkinson-hyperlegible-mono', 'atkinson-hyperlegible-mono-latin');
  face('Greek', 'noto-sans', 'noto-sans-greek');
  // Codes and figures are never broken.
  Font.registerHyphenationCallback((word) => [word]);
  registered = true;
}
