import { writeIcc } from '@melto/core/icc/writeIcc';
import { otherVersion } from '@melto/core/profile/otherVersion';
import { issueText } from '@melto/core/result';
import { report, writeFile } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

/** Writes an output profile as the other version of the ICC specification has it. */
export function profileVersion(
  path: string,
  options: { readonly out: string; readonly json?: boolean },
): void {
  const profile = readProfile(path);
  const version = profile.header.version.major >= 4 ? 2 : 4;
  const made = otherVersion(profile, version);
  if (!made.ok) throw new UsageError(`${path}: ${made.issues.map(issueText).join('; ')}`);
  const bytes = writeIcc(made.value);
  writeFile(options.out, bytes);
  report(options.json, { out: options.out, bytes: bytes.length, version }, [
    `${options.out}: version ${version}, ${bytes.length} bytes`,
  ]);
}
