import { separationFrom } from '@melto/core/separate/separation';
import type { Separation } from '@melto/core/separate/separation';
import { oneOf, wholeNumber } from './files.ts';
import { UsageError } from './usageError.ts';

export interface SeparationOptions {
  readonly black: string;
  readonly blackMost?: string;
  readonly blackStart?: string;
  readonly blackShape?: string;
  readonly blackChroma?: string;
  readonly inkLimits?: string;
  readonly pureBlack?: boolean;
  readonly tac: string;
}

export function separationFromOptions(options: SeparationOptions): Separation {
  const { blackMost, blackStart, blackShape, blackChroma, inkLimits, pureBlack } = options;
  const optional = <T>(text: string | undefined, read: (text: string) => T): T | undefined =>
    text === undefined ? undefined : read(text);
  return separationFrom({
    black: oneOf(options.black, '--black', ['light', 'medium', 'heavy', 'max']),
    totalInk: wholeNumber(options.tac, '--tac', 120, 400) / 100,
    blackMost: optional(blackMost, (text) => wholeNumber(text, '--black-most', 0, 100) / 100),
    blackStart: optional(blackStart, (text) => wholeNumber(text, '--black-start', 1, 100)),
    blackShape: optional(blackShape, (text) => numberWithin(text, '--black-shape', 0.3, 5)),
    blackChroma: optional(blackChroma, (text) => numberWithin(text, '--black-chroma', 4, 120)),
    inkLimits: optional(inkLimits, limitsOf),
    pureBlack,
  });
}

function limitsOf(text: string): number[] {
  const parts = text.split(',');
  if (parts.length !== 4)
    throw new UsageError(`--ink-limits: found "${text}", expected four per cent for C,M,Y,K`);
  return parts.map((part) => wholeNumber(part.trim(), '--ink-limits', 30, 100) / 100);
}

function numberWithin(text: string, name: string, least: number, most: number): number {
  const value = Number(text);
  if (!(value >= least && value <= most))
    throw new UsageError(`${name}: found "${text}", expected a number from ${least} to ${most}`);
  return value;
}
