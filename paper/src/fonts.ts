import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fontkit from '@pdf-lib/fontkit';
import type { Font } from '@pdf-lib/fontkit';

export type FontName = 'text' | 'textBold' | 'code';

const FILES: Readonly<Record<FontName, string>> = {
  text: '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff',
  textBold: '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff',
  code: '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-700-normal.woff',
};

/** Bytes of a font that ships with the application; the root is MELTO_ROOT or the working directory. */
export function fontBytes(name: FontName): Uint8Array {
  return readFileSync(join(process.env['MELTO_ROOT'] ?? process.cwd(), 'node_modules', FILES[name]));
}

const parsed = new Map<FontName, Font>();

/** The parsed font, for text that is drawn as outlines. */
export function outlineFont(name: FontName): Font {
  let font = parsed.get(name);
  if (font === undefined) {
    font = fontkit.create(fontBytes(name));
    parsed.set(name, font);
  }
  return font;
}
