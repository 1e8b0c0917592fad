import { RENDERING_INTENTS } from '@melto/core/icc/profileTransform';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { deviceLink } from '@melto/core/link/deviceLink';
import { issueText } from '@melto/core/result';
import { oneOf, report, writeFile } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface LinkOptions {
  readonly from: string;
  readonly to: string;
  readonly intent: string;
  readonly blackPoint?: boolean;
  readonly keep?: string;
  readonly totalInk?: string;
  readonly out: string;
  readonly json?: boolean;
}

const KEEPS = ['black', 'inks'] as const;

/** Writes a device link from one profile of inks to another. */
export function link(options: LinkOptions): void {
  const intent = oneOf(options.intent, '--intent', RENDERING_INTENTS);
  const keep = (options.keep ?? '')
    .split(',')
    .map((word) => word.trim())
    .filter((word) => word !== '')
    .map((word) => oneOf(word, '--keep', KEEPS));
  const totalInk = options.totalInk === undefined ? undefined : Number(options.totalInk) / 100;
  if (totalInk !== undefined && !Number.isFinite(totalInk))
    throw new UsageError(`--total-ink: found "${options.totalInk ?? ''}", expected per cent, from 100`);
  const made = deviceLink(readProfile(options.from), readProfile(options.to), {
    ...{ intent, blackPoint: options.blackPoint === true, totalInk },
    keepBlack: keep.includes('black'),
    keepInks: keep.includes('inks'),
    description: `${nameOf(options.from)} to ${nameOf(options.to)}, ${intent}`,
    createdMs: Date.now(),
  });
  if (!made.ok) throw new UsageError(made.issues.map(issueText).join('; '));
  const bytes = writeIcc(made.value);
  writeFile(options.out, bytes);
  report(options.json, { out: options.out, bytes: bytes.length, intent, keep }, [
    `${options.out}: ${bytes.length} bytes, ${intent}${keep.length === 0 ? '' : `, keeps ${keep.join(' and ')} alone`}`,
  ]);
}

const nameOf = (path: string): string => path.replace(/^.*[\\/]/, '').replace(/\.(icc|icm)$/i, '');
