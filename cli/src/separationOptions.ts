import { separationFrom } from '@melto/core/separate/separation';
import { PAIR_PERCENT, pairLimitsFrom } from '@melto/core/separate/pairLimits';
import type { PairLimit, Separation } from '@melto/core/separate/separation';
import { channelCount, channelNames, CMYK } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { oneOf, wholeNumber } from './files.ts';
import { UsageError } from './usageError.ts';

export interface SeparationOptions {
  readonly black: string;
  readonly blackMost?: string;
  readonly blackStart?: string;
  readonly blackShape?: string;
  readonly blackChroma?: string;
  readonly inkLimits?: string;
  readonly pairLimits?: string;
  readonly replace?: string;
  readonly pureBlack?: boolean;
  readonly tac: string;
}

/** @param process of the inks that are limited; those of other devices have no separation. */
export function separationFromOptions(options: SeparationOptions, process: Process = CMYK): Separation {
  const { blackMost, blackStart, blackShape, blackChroma, inkLimits, pairLimits, replace, pureBlack } =
    options;
  const inks = channelCount(process);
  const optional = <T>(text: string | undefined, read: (text: string) => T): T | undefined =>
    text === undefined ? undefined : read(text);
  return separationFrom({
    black: oneOf(options.black, '--black', ['light', 'medium', 'heavy', 'max']),
    totalInk: wholeNumber(options.tac, '--tac', 120, 100 * Math.max(4, inks)) / 100,
    blackMost: optional(blackMost, (text) => wholeNumber(text, '--black-most', 0, 100) / 100),
    blackStart: optional(blackStart, (text) => wholeNumber(text, '--black-start', 1, 100)),
    blackShape: optional(blackShape, (text) => numberWithin(text, '--black-shape', 0.3, 5)),
    blackChroma: optional(blackChroma, (text) => numberWithin(text, '--black-chroma', 4, 120)),
    inkLimits: optional(inkLimits, (text) => limitsOf(text, process)) ?? new Array<number>(inks).fill(1),
    pairLimits: optional(pairLimits, (text) => pairsOf(text, process)),
    replace: optional(replace, (text) => wholeNumber(text, '--replace', 0, 100) / 100),
    pureBlack,
  });
}

function limitsOf(text: string, process: Process): number[] {
  const parts = text.split(',');
  const names = channelNames(process);
  if (parts.length !== names.length)
    throw new UsageError(`--ink-limits: found "${text}", expected per cent for ${names.join()}`);
  return parts.map((part) => wholeNumber(part.trim(), '--ink-limits', 30, 100) / 100);
}

function pairsOf(text: string, process: Process): PairLimit[] {
  const names = channelNames(process);
  const limits = pairLimitsFrom(text, names);
  if (limits === undefined)
    throw new UsageError(
      `--pair-limits: found "${text}", expected two of ${names.join()} with ${PAIR_PERCENT.least} to ${PAIR_PERCENT.most} per cent, as C+M=180`,
    );
  return limits;
}

function numberWithin(text: string, name: string, least: number, most: number): number {
  const value = Number(text);
  if (!(value >= least && value <= most))
    throw new UsageError(`${name}: found "${text}", expected a number from ${least} to ${most}`);
  return value;
}
