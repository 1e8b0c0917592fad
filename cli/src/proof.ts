import { RENDERING_INTENTS } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { exactPicture } from '@melto/core/proof/exactPicture';
import { softProof } from '@melto/core/proof/softProof';
import { issueText } from '@melto/core/result';
import { transformed } from '@melto/core/transform/transform';
import type { Transform } from '@melto/core/transform/transform';
import { colorantNames } from '@melto/core/icc/colorantNames';
import { deviceTiff } from '@melto/core/picture/deviceTiff';
import { proofPicture } from '@melto/paper/proofPicture';
import { srgbProfile } from '@melto/paper/srgbProfile';
import { oneOf, readBytes, report, writeFile } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface ProofOptions {
  readonly profile: string;
  readonly source?: string;
  readonly intent: string;
  readonly blackPoint?: boolean;
  readonly paperWhite: boolean;
  readonly inkBlack: boolean;
  readonly out?: string;
  readonly values?: string;
  readonly json?: boolean;
}

const DPI = 300;

/** Writes a picture as a device prints it, for a screen of sRGB, or its values for the device; each pixel exactly. */
export async function proof(path: string, options: ProofOptions): Promise<void> {
  const intent = oneOf(options.intent, '--intent', RENDERING_INTENTS);
  if (options.out === undefined && options.values === undefined)
    throw new UsageError(
      'found nothing to write, expected --out for the proof, --values for the device, or both',
    );
  const read = await proofPicture(readBytes(path), Infinity, true);
  if (!read.ok) throw new UsageError(`${path}: ${read.issues.map(issueText).join('; ')}`);
  const { width, height, channels, values, icc } = read.value;
  const source = sourceOf(path, options.source, icc);
  const deviceBytes = readBytes(options.profile);
  const device = readProfile(options.profile, deviceBytes);
  const made = softProof(source, device, {
    ...{ intent, blackPoint: options.blackPoint === true },
    ...{ paperWhite: options.paperWhite, inkBlack: options.inkBlack },
  });
  if (!made.ok) throw new UsageError(made.issues.map(issueText).join('; '));
  const { toDevice, shown, inks } = made.value;
  if (toDevice.inputs !== channels)
    throw new UsageError(`${path}: found ${channels} channels, its profile is for ${toDevice.inputs}`);
  const through = (...links: readonly Transform[]): Uint8Array => {
    const outputs = links[links.length - 1].outputs;
    const rows = exactPicture(values, channels, outputs, (own) =>
      links.reduce((at, link) => transformed(link, at), own),
    );
    return Uint8Array.from(rows, (value) => Math.round(255 * value));
  };
  if (options.out !== undefined)
    writeFile(
      options.out,
      deviceTiff(through(toDevice, shown), { width, height, channels: 3 }, DPI, await srgbProfile()),
    );
  if (options.values !== undefined) {
    const named = { width, height, channels: inks, inks: colorantNames(device, inks) };
    writeFile(options.values, deviceTiff(through(toDevice), named, DPI, deviceBytes));
  }
  const written = [options.out, options.values].filter((file) => file !== undefined);
  report(options.json, { width, height, written }, [`${width} × ${height} pixels: ${written.join(', ')}`]);
}

/** What the values are meant by: as whoever asks says, else as the picture tells; nothing is assumed. */
function sourceOf(path: string, said: string | undefined, icc: Uint8Array | undefined) {
  if (said !== undefined) return readProfile(said);
  if (icc === undefined)
    throw new UsageError(`${path}: it tells no profile; say what its values are meant by with --source`);
  const read = readIcc(icc);
  if (!read.ok)
    throw new UsageError(
      `${path}: the profile in it cannot be read; ${read.issues.map(issueText).join('; ')}`,
    );
  return read.value;
}
