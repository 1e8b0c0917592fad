import { baseInks } from '@melto/core/device/baseInks';
import { cmykWithin } from '@melto/core/device/cmykWithin';
import { channelNames } from '@melto/core/device/process';
import { balanceNeutrals } from '@melto/core/balance/balanceNeutrals';
import { neutralReading } from '@melto/core/balance/neutralScales';
import { patchInkDensities } from '@melto/core/cgats/patchInkDensities';
import { curvesFromCsv } from '@melto/core/curveFiles/curvesFromCsv';
import { curvesToCsv } from '@melto/core/curveFiles/curvesToCsv';
import { curvesToDeviceLink } from '@melto/core/curveFiles/curvesToDeviceLink';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { issueText } from '@melto/core/result';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { inkRamps } from '@melto/core/tone/inkRamps';
import { linearise } from '@melto/core/tone/linearise';
import { straightCurve } from '@melto/core/tone/toneCurve';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import { measuresFor, PROCESS_INKS, TONE_MEASURES } from '@melto/core/tone/toneMeasure';
import { TVI_AT_50, tviAim } from '@melto/core/tone/tviAim';
import type { TviLetter } from '@melto/core/tone/tviAim';
import { inkReading, oneOf, readBytes, report, writeFile } from './files.ts';
import { UsageError } from './usageError.ts';

export interface CurvesOptions {
  readonly measured: string;
  readonly measuredAs?: string;
  readonly curves?: string;
  readonly out?: string;
  readonly link?: string;
  readonly json?: boolean;
}

export interface LineariseOptions extends CurvesOptions {
  readonly measure: string;
  readonly aim?: string;
  readonly limits?: string;
  readonly within?: string;
}

/** The curves of a CSV file with a column for each ink; straight ones where no file is named. */
export function readCurves(path: string | undefined, inks: readonly string[] = PROCESS_INKS): ToneCurves {
  if (path === undefined) return inks.map(() => straightCurve());
  const result = curvesFromCsv(Buffer.from(readBytes(path)).toString('utf8'));
  if (!result.ok) throw new UsageError(`${path}: ${result.issues.map(issueText).join('; ')}`);
  return inks.map((ink) => {
    const curve = result.value.curves.get(ink);
    if (curve === undefined)
      throw new UsageError(
        `${path}: found ${[...result.value.curves.keys()].join(', ')}, expected columns ${inks.join(', ')}`,
      );
    return curve;
  });
}

/** One round of linearisation; exit code 1 where a step departs by more than `--within` per cent. */
export function curvesLinearise(options: LineariseOptions): number {
  const measure = oneOf(options.measure, '--measure', TONE_MEASURES);
  const letters = Object.keys(TVI_AT_50) as TviLetter[];
  const letter = options.aim?.toUpperCase();
  if (measure === 'tvi' && !letters.some((known) => known === letter))
    throw new UsageError(
      `--aim: found "${options.aim ?? ''}", expected ${letters.join(', ')} with --measure tvi`,
    );
  const { set, process, device, xyz } = inkReading(options.measured, options.measuredAs);
  const names = channelNames(process);
  if (!measuresFor(names).includes(measure))
    throw new UsageError(
      `--measure: TVI aims are agreed for C, M, Y, K, found ${names.join(', ')}, expected sctv`,
    );
  const present = readCurves(options.curves, names);
  const paper = meanPaperXyz(process, device, xyz);
  if (paper === undefined)
    throw new UsageError(
      `${options.measured}: found no bare paper, expected at least one patch of ${process.name} with no ink`,
    );
  const ramps = inkRamps(process, device, xyz, patchInkDensities(set));
  if (ramps.length < names.length)
    throw new UsageError(
      `${options.measured}: found ramps of ${ramps.map(({ ink }) => ink).join(', ') || 'no ink'}, expected at least five tones of each of ${names.join(', ')} alone`,
    );
  const inks = linearise({
    ramps,
    paper,
    present,
    limits: limitsOf(options.limits, names),
    measure,
    tviAims: names.map(() => tviAim((letter ?? 'A') as TviLetter)),
  });
  writeCurves(
    options,
    inks.map(({ next }) => next),
    names,
  );
  const percent = (value: number): number => Math.round(value * 1e4) / 100;
  const largest = Math.max(...inks.map((ink) => ink.largest));
  report(
    options.json,
    {
      measure,
      largest: percent(largest),
      inks: inks.map(({ ink, mean, largest: most, noise, wrong }) => ({
        ink,
        mean: percent(mean),
        largest: percent(most),
        noise: percent(noise),
        wrong: wrong.map(({ row, tone, off }) => ({
          patch: set.ids[row],
          tone: percent(tone),
          off: percent(off),
        })),
      })),
      out: options.out,
    },
    inks.flatMap(({ ink, mean, largest: most, wrong }) => [
      `${ink}: steps depart from the aim by ${percent(mean).toFixed(2)} % on average, ${percent(most).toFixed(2)} % at most`,
      ...wrong.map(
        ({ row, tone, off }) =>
          `${ink}: patch ${set.ids[row]} (${percent(tone).toFixed(1)} %) is ${percent(off).toFixed(1)} % off its ramp and was left out`,
      ),
    ]),
  );
  if (options.within === undefined) return 0;
  const within = Number(options.within);
  if (!(within > 0)) throw new UsageError(`--within: found "${options.within}", expected per cent, as 1.5`);
  return 100 * largest <= within ? 0 : 1;
}

/** One round of balance; without `--out` the sheet is judged only. Exit code 1 where it does not conform. */
export function curvesBalance(options: CurvesOptions): number {
  const { set, process, device, xyz } = inkReading(options.measured, options.measuredAs);
  if (baseInks(process) === undefined)
    throw new UsageError(
      `${options.measured}: found ${process.name} values, expected C, M, Y and K among the inks`,
    );
  const names = channelNames(process);
  const present = readCurves(options.curves, names);
  const reading = neutralReading(cmykWithin(process, device), xyz);
  if (reading === undefined)
    throw new UsageError(
      `${options.measured}: found no near-neutral scales, expected bare paper, and CMY and K scales of eight steps to 100 %`,
    );
  if (reading.variations.length < 6)
    throw new UsageError(
      `${options.measured}: found ${reading.variations.length} greys with small changes of magenta and yellow, expected at least 6`,
    );
  const { judgement, next, modelResidual } = balanceNeutrals(reading, present, process);
  writeCurves(options, next, names);
  const { figures, verdict, extrapolated } = judgement;
  const words = `${verdict.replaceAll('-', ' ')}${extrapolated && verdict !== 'not-judged' ? ', aim extrapolated' : ''}`;
  report(
    options.json,
    {
      verdict,
      extrapolated,
      figures,
      limits: judgement.limits,
      densities: { cmy: judgement.cmyDensity, k: judgement.kDensity },
      modelResidual,
      wrong: reading.wrong.map(({ row, off }) => ({ patch: set.ids[row], off })),
      out: options.out,
    },
    [
      `as read: ${words}; aims fitted to published characterisations`,
      ...(
        [
          ['wΔL* of CMY', figures.cmyL],
          ['wΔCh of CMY', figures.cmyCh],
          ['wΔL* of K', figures.kL],
        ] as const
      ).map(
        ([name, { mean, largest }]) =>
          `${name}: mean ${mean.toFixed(2)} of ${judgement.limits.mean.toFixed(1)}, largest ${largest.toFixed(2)} of ${judgement.limits.largest.toFixed(1)}`,
      ),
      ...reading.wrong.map(
        ({ row, off }) => `patch ${set.ids[row]} is ${off.toFixed(1)} off its scale and was left out`,
      ),
    ],
  );
  return verdict === 'does-not-conform' && options.out === undefined ? 1 : 0;
}

function writeCurves(
  options: CurvesOptions,
  curves: ToneCurves,
  inks: readonly string[] = PROCESS_INKS,
): void {
  if (options.link !== undefined && inks.join() !== PROCESS_INKS.join())
    throw new UsageError(`--link: device links are of CMYK so far, found ${inks.join(', ')}, expected --out`);
  if (options.out !== undefined) writeFile(options.out, curvesToCsv(curves, inks, 257));
  if (options.link === undefined) return;
  const name = options.link.replace(/^.*\/|\.icc$/g, '');
  writeFile(options.link, writeIcc(curvesToDeviceLink(curves, name, Date.now())));
}

function limitsOf(text: string | undefined, inks: readonly string[]): number[] {
  if (text === undefined) return inks.map(() => 1);
  const values = text.split(',').map(Number);
  if (values.length !== inks.length || values.some((value) => !(value >= 20 && value <= 100)))
    throw new UsageError(
      `--limits: found "${text}", expected one of 20 to 100 per cent for each of ${inks.join(', ')}, as 95,100,92,100`,
    );
  return values.map((value) => value / 100);
}
