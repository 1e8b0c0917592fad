/** Names of inks as colour engines and other programs show them. */
const INK_NAMES: Readonly<Record<string, string>> = {
  C: 'Cyan',
  M: 'Magenta',
  Y: 'Yellow',
  K: 'Black',
  O: 'Orange',
  R: 'Red',
  G: 'Green',
  B: 'Blue',
  V: 'Violet',
};

/** The name of a channel in full. */
export function inkName(channel: string): string {
  return INK_NAMES[channel] ?? channel;
}
