/**
 * What a channel of a device is: light that is emitted or reflected by the device's own driver (RGB), a chromatic ink,
 * or the black one. How they mix, and which is left out of what, follows from this.
 */
export type ChannelKind = 'light' | 'chromatic' | 'black';

export interface Channel {
  /** As charts, files and screens name it. */
  readonly name: string;
  readonly kind: ChannelKind;
  /** Device value 0..1 that leaves the stock bare. */
  readonly bare: 0 | 1;
}

/** The channels of a device, in the order in which it takes them. */
export interface Process {
  /** The names of its channels in a row: `CMYK`. */
  readonly name: string;
  /** What a whole channel is called in files and on screens: 255 or 100 (per cent). */
  readonly scale: 255 | 100;
  readonly channels: readonly Channel[];
}

export const MOST_CHANNELS = 8;

const light = (name: string): Channel => ({ name, kind: 'light', bare: 1 });
const ink = (name: string): Channel => ({ name, kind: 'chromatic', bare: 0 });
const black = (name: string): Channel => ({ name, kind: 'black', bare: 0 });

/** A driver that takes red, green and blue and makes its own inks of them. */
export const RGB: Process = { name: 'RGB', scale: 255, channels: ['R', 'G', 'B'].map(light) };
export const CMYK: Process = inkProcess(['C', 'M', 'Y', 'K']);
export const GREY: Process = inkProcess(['K']);

/** A process of inks by their names; the one that is called K is the black. */
export function inkProcess(names: readonly string[]): Process {
  if (names.length === 0 || names.length > MOST_CHANNELS || new Set(names).size < names.length)
    throw new RangeError(
      `a process has 1 to ${MOST_CHANNELS} channels of different names, found ${names.join(' ')}`,
    );
  return {
    name: names.join(''),
    scale: 100,
    channels: names.map((name) => (name === 'K' ? black(name) : ink(name))),
  };
}

export function channelCount({ channels }: Process): number {
  return channels.length;
}

export function channelNames({ channels }: Process): readonly string[] {
  return channels.map(({ name }) => name);
}

/** Whether it is driven by inks: bare stock at 0, and its calibration is Melto's work. */
export function drivenByInks({ channels }: Process): boolean {
  return channels.every(({ kind }) => kind !== 'light');
}

/** Whether its own driver takes light values (RGB) and makes inks of them: bare stock at full light. */
export function drivenByLight(process: Process): boolean {
  return !drivenByInks(process);
}

/** Whether CMYK values mean its own inks, so that those of aims may be sent as they are. */
export function takesCmyk(process: Process): boolean {
  return sameProcess(process, CMYK);
}

/** Device values of the bare stock, by channel. */
export function bareValues({ channels }: Process): readonly number[] {
  return channels.map(({ bare }) => bare);
}

/** Place of the black channel; undefined where there is none. */
export function blackChannel({ channels }: Process): number | undefined {
  const place = channels.findIndex(({ kind }) => kind === 'black');
  return place < 0 ? undefined : place;
}

/** Whether two have the same channels in the same order. */
export function sameProcess(a: Process | undefined, b: Process): boolean {
  return (
    a !== undefined &&
    a.scale === b.scale &&
    a.channels.length === b.channels.length &&
    a.channels.every(({ name, kind, bare }, i) => {
      const other = b.channels[i];
      return name === other?.name && kind === other.kind && bare === other.bare;
    })
  );
}

/** Whether row `row` of device values (row-major × channel) leaves the stock bare, to 1e-6. */
export function isBare(process: Process, device: ArrayLike<number>, row: number): boolean {
  const count = process.channels.length;
  return process.channels.every(({ bare }, c) => Math.abs((device[row * count + c] ?? NaN) - bare) <= 1e-6);
}
