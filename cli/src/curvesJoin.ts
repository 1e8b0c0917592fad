import { curvesToCsv } from '@melto/core/curveFiles/curvesToCsv';
import { channelNames } from '@melto/core/device/process';
import { joinLightInk } from '@melto/core/tone/joinLightInk';
import { inkReading, report, wholeNumber, writeFile } from './files.ts';
import { namedInks } from './namedInks.ts';
import { UsageError } from './usageError.ts';

export interface CurvesJoinOptions {
  readonly measured: string;
  readonly measuredAs?: string;
  readonly inks?: string;
  readonly light: string;
  readonly full: string;
  readonly most: string;
  readonly out?: string;
  readonly json?: boolean;
}

/** Joins a light ink and its full ink: what each prints for a tone of both. */
export function curvesJoin(options: CurvesJoinOptions): void {
  const reading = inkReading(options.measured, options.measuredAs);
  const { process } = namedInks(reading, options);
  const names = channelNames(process);
  const place = (ink: string, option: string): number => {
    const found = names.indexOf(ink);
    if (found < 0) throw new UsageError(`${option}: found "${ink}", expected one of ${names.join(', ')}`);
    return found;
  };
  const light = place(options.light, '--light');
  const full = place(options.full, '--full');
  const most = wholeNumber(options.most, '--most', 20, 100) / 100;
  // Patches of these two alone: whatever else is in the file is left out.
  const { device, xyz } = reading;
  const rows = Array.from({ length: xyz.length / 3 }, (_, row) => row).filter((row) =>
    names.every((_, ink) => ink === light || ink === full || device[names.length * row + ink] < 1e-6),
  );
  const own = Float64Array.from(
    rows.flatMap((row) => [device[names.length * row + light], device[names.length * row + full]]),
  );
  const colours = Float64Array.from(rows.flatMap((row) => [...xyz.subarray(3 * row, 3 * row + 3)]));
  let join;
  try {
    join = joinLightInk(own, colours, most);
  } catch (error) {
    if (error instanceof RangeError) throw new UsageError(`${options.measured}: ${error.message}`);
    throw error;
  }
  if (options.out !== undefined)
    writeFile(options.out, curvesToCsv([join.light, join.full], [options.light, options.full], 257));
  const percent = (value: number): number => Math.round(1000 * value) / 10;
  const { amount, tone } = join.mostLight;
  report(
    options.json,
    { begins: percent(join.begins), mostLight: percent(amount), at: percent(tone), out: options.out },
    [
      `${options.full} begins at ${percent(join.begins)} % of the tone; ${options.light} is ${percent(amount)} % at most, at ${percent(tone)} %`,
    ],
  );
}
