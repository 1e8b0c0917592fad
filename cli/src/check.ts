import { patchXyz } from '@melto/core/cgats/patchColours';
import { checkAgainstAims } from '@melto/core/conformity/checkAgainstAims';
import type { AimCheck } from '@melto/core/conformity/checkAgainstAims';
import { publishedAims } from '@melto/core/conformity/aims';
import type { AimOrigin, Aims } from '@melto/core/conformity/aims';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import type { PublishedCondition } from '@melto/core/conformity/publishedCondition';
import { MODES } from '@melto/core/measured/columns';
import { installedCharacterisations } from '@melto/paper/measured/installedCharacterisations';
import { PUBLISHED_CONDITIONS } from '@melto/core/conformity/data/publishedConditions';
import { TOLERANCE_SETS } from '@melto/core/conformity/data/toleranceSets';
import { doubtfulLimits } from '@melto/core/conformity/toleranceSet';
import { formatAgainstLimit } from '@melto/core/judgement/metric';
import type { Verdict } from '@melto/core/judgement/verdict';
import { profileXyz } from '@melto/core/conformity/profileAims';
import { issueText } from '@melto/core/result';
import { cmykReading, oneOf, readBytes, report } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface CheckOptions {
  readonly measured: string;
  readonly measuredAs?: string;
  readonly aims: string;
  readonly aimsMode?: string;
  readonly tolerances: string;
  readonly substrateCorrected?: boolean;
  readonly json?: boolean;
}

const WORDS: Readonly<Record<Verdict, string>> = {
  conforms: 'conforms',
  near: 'conforms, near a limit',
  'does-not-conform': 'does not conform',
  'not-judged': 'not judged',
};

/** Judges a reading by aims and tolerances; the exit code is the verdict. */
export function check(options: CheckOptions): number {
  const id = oneOf(
    options.tolerances,
    '--tolerances',
    TOLERANCE_SETS.map((set) => set.id),
  );
  const tolerances = TOLERANCE_SETS.find((set) => set.id === id) ?? TOLERANCE_SETS[0];
  const { set, device } = cmykReading(options.measured, options.measuredAs);
  const judged = checkAgainstAims(
    set,
    withMode(aimsFrom(options.aims, device), options.aimsMode),
    tolerances,
    options.substrateCorrected === true,
  );
  if (!judged.ok)
    throw new UsageError(`${options.measured}, ${options.aims}: ${judged.issues.map(issueText).join('; ')}`);
  const { verdict, metrics, pairs, otherwise } = judged.value;
  report(options.json, { tolerances: id, verdict, otherwise, patches: pairs.length, metrics }, [
    `${sentence(judged.value)} to ${tolerances.name} (${tolerances.source})`,
    ...metrics.map(lineOf(judged.value)),
    ...(tolerances.notJudged ?? []),
    ...doubtfulLimits(tolerances),
  ]);
  return verdict === 'conforms' || verdict === 'near' ? 0 : 1;
}

function sentence({ verdict, substrateCorrected, otherwise, pairs }: AimCheck): string {
  const originWords = (origin: AimOrigin, words: string): string[] => {
    const count = pairs.filter((pair) => pair.origin === origin).length;
    return count === 0 ? [] : [`${count} ${words}`];
  };
  const how = [
    `${pairs.length} patches`,
    ...(substrateCorrected ? ['substrate-corrected'] : []),
    ...originWords('completed', 'aims completed from published solids'),
    ...originWords('interpolated', 'aims interpolated from their neighbours'),
    ...otherwise,
  ];
  return `${WORDS[verdict]} (${how.join('; ')})`;
}

function lineOf({ pairs }: AimCheck) {
  return ({
    group,
    statistic,
    quantity,
    value,
    limit,
    margin,
    verdict,
    count,
    worst,
    estimated,
  }: AimCheck['metrics'][number]) => {
    const name = `${group}, ${statistic} ${quantity}`.padEnd(40);
    if (worst === undefined) return `${name} no patch of this group: ${WORDS[verdict]}`;
    const inks = Array.from(pairs[worst].device, (ink) => (100 * ink).toFixed(0)).join(' ');
    return `${name} ${formatAgainstLimit(value, limit).padStart(6)} of ${limit.toFixed(1)}, margin ${margin.toFixed(2).padStart(6)}: ${WORDS[verdict]} (${count} patches, ${estimated > 0 ? `${estimated} aims completed, ` : ''}worst ${inks})`;
  };
}

/** Aims of a published condition by its name, from a characterisation, or from what a profile predicts for the values that were read. */
function aimsFrom(path: string, device: Float64Array): Aims {
  const published = PUBLISHED_CONDITIONS.find(({ key }) => key === path.toLowerCase());
  if (published !== undefined) {
    const full = installedCharacterisations().get(published.key);
    return full === undefined ? publishedAims(published) : characterised(published, full);
  }
  const bytes = readBytes(path);
  const isProfile = Buffer.from(bytes.subarray(36, 40)).toString('latin1') === 'acsp';
  if (!isProfile) {
    const { set, device: own } = cmykReading(path);
    return { device: own, xyz: patchXyz(set) ?? new Float64Array(0), conditions: set.conditions };
  }
  const xyz = profileXyz(readProfile(path), device);
  if (!xyz.ok)
    throw new UsageError(`${path}: found no table from CMYK to Lab, expected a CMYK output profile`);
  return { device, xyz: xyz.value, conditions: {} };
}

/** A published condition by its full characterisation, as it is installed. */
function characterised(published: PublishedCondition, text: string): Aims {
  const read = readPatchSet(text);
  const xyz = read.ok ? patchXyz(read.value) : undefined;
  if (!read.ok || read.value.device === undefined || xyz === undefined)
    throw new UsageError(`${published.name}: its characterisation on this machine cannot be read`);
  return { device: read.value.device, xyz, conditions: publishedAims(published).conditions };
}

/** What a person says of aims that do not tell their mode. */
function withMode(aims: Aims, said: string | undefined): Aims {
  if (said === undefined) return aims;
  const mode = MODES.find((own) => own === said.toUpperCase());
  if (mode === undefined) throw new UsageError(`--aims-mode: found "${said}", expected ${MODES.join(', ')}`);
  const { mode: told } = aims.conditions;
  if (told !== undefined && told !== mode)
    throw new UsageError(`--aims-mode: found ${mode}, but the aims tell that they are for ${told}`);
  return { ...aims, conditions: { ...aims.conditions, mode } };
}
