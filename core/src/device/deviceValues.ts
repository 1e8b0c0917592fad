const INKS = ['C', 'M', 'Y', 'K'];

/** Values of a device, 0..1, as they are read: light in 0 to 255, inks in per cent. */
export function deviceValues(values: readonly number[]): string {
  return values.length === 3
    ? values.map((value) => Math.round(255 * value)).join(' ')
    : values.map((value, i) => `${values.length === 4 ? INKS[i] : ''}${Math.round(100 * value)}`).join(' ');
}
