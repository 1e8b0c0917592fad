/** The greys and status tones of a theme; the only saturated colours besides print colours. */
export interface Palette {
  readonly page: string;
  readonly surface: string;
  readonly rule: string;
  readonly text: string;
  readonly quiet: string;
  readonly wash: string;
  readonly conforms: string;
  readonly near: string;
  readonly fails: string;
  readonly focusGap: string;
}

export const PALETTES: Readonly<Record<'light' | 'dark', Palette>> = {
  light: {
    page: '#F3F3F3',
    surface: '#FFFFFF',
    rule: '#D6D6D6',
    text: '#1B1B1B',
    quiet: '#5C5C5C',
    wash: '#ECECEC',
    conforms: '#1F5F73',
    near: '#9A6B00',
    fails: '#B3361B',
    focusGap: '#FFFFFF',
  },
  dark: {
    page: '#191919',
    surface: '#232323',
    rule: '#474747',
    text: '#EDEDED',
    quiet: '#B0B0B0',
    wash: '#2E2E2E',
    conforms: '#7CBFD3',
    near: '#E3B04B',
    fails: '#F59A80',
    focusGap: '#191919',
  },
};

/** CSS variables of both themes; the theme is chosen by an attribute of the root element. */
export function paletteCss(): string {
  const block = (palette: Palette): string =>
    Object.entries(palette)
      .map(([name, value]) => `--${name}:${value}`)
      .join(';');
  return `:root{${block(PALETTES.light)}}[data-theme="dark"]{${block(PALETTES.dark)};color-scheme:dark}`;
}

/** Contrast ratio of two colours (WCAG 2.2). */
export function contrast(a: string, b: string): number {
  const luminance = (hex: string): number => {
    const [r, g, bl] = [1, 3, 5].map((at) => {
      const value = parseInt(hex.slice(at, at + 2), 16) / 255;
      return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * r + 0.7152 * g + 0.0722 * bl;
  };
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (high + 0.05) / (low + 0.05);
}
