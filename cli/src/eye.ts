import { basename } from 'node:path';
import { channelCount } from '@melto/core/device/process';
import { eyeHypotheses } from '@melto/core/eye/eyeHypotheses';
import { pointedSentences } from '@melto/core/eye/eyeSentences';
import { eyeValues } from '@melto/core/eye/eyeValues';
import type { EyeValues } from '@melto/core/eye/eyeValues';
import { pointOut } from '@melto/core/eye/pointOut';
import { readNotes } from '@melto/core/eye/readNotes';
import { EYE_MOST_COLOURS, REFERENCE_COLOURS } from '@melto/core/eye/referenceColours';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import type { SpectralChart } from '@melto/core/light/chartInLights';
import { spectraAtUv } from '@melto/core/light/ultraviolet';
import { REACHED } from '@melto/core/proof/placeList';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { issueText } from '@melto/core/result';
import { drawnPdf } from '@melto/paper/chartPdf';
import { drawEyePages } from '@melto/paper/eyePage';
import { processTag } from '@melto/paper/namedInks';
import {
  colourListFrom,
  deviceOf,
  measuredAs,
  paperOf,
  readBytes,
  readMeasuredFile,
  report,
  writeFile,
} from './files.ts';
import { pairedWith, seenIn } from './light.ts';
import { pageProcess, readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

interface EyeOptions {
  readonly profile: string;
  readonly colours?: string;
  readonly json?: boolean;
}

interface EyeSheet extends EyeValues {
  readonly profile: IccProfile;
  readonly colours: readonly ListedColour[];
}

/** The pages of an eye's check, in values of the device. */
export async function eyePage({
  paper,
  out,
  ...options
}: EyeOptions & { readonly paper: string; readonly out: string }): Promise<void> {
  const { profile, colours, device, printed } = sheetOf(options);
  const process = pageProcess(options.profile, profile);
  const channels = channelCount(process);
  const nowMs = Date.now();
  const drawings = drawEyePages(
    paperOf(paper),
    colours.map(({ name }, i) => ({
      name,
      device: [...device.subarray(i * channels, (i + 1) * channels)],
      beyond: printed[i].deltaE,
    })),
    {
      list: options.colours === undefined ? 'Reference colours' : basename(options.colours),
      condition: basename(options.profile),
      date: new Date(nowMs).toISOString().slice(0, 10),
      how: 'the profile is in these values: print without colour management',
    },
  );
  writeFile(out, await drawnPdf(drawings, { title: 'Eye’s check', tag: processTag(process) }, nowMs));
  const beyond = colours.filter((_, i) => printed[i].deltaE > REACHED).map(({ name }) => name);
  report(options.json, { out, colours: colours.map(({ name }) => name), beyond }, [
    `${out}: ${colours.length} colours`,
    ...(beyond.length > 0 ? [`not reached here: ${beyond.join(', ')}`] : []),
  ]);
}

export interface EyeTellOptions extends EyeOptions {
  readonly light: string;
  readonly observer: string;
  readonly measured?: string;
  readonly withoutUv?: string;
  readonly measuredAs?: string;
}

/** What the notes of an eye point to, and what to try next. */
export function eyeTell(path: string, options: EyeTellOptions): void {
  const { profile, colours, device } = sheetOf(options);
  const notes = readNotes(
    Buffer.from(readBytes(path)).toString('utf8'),
    colours.map(({ name }) => name),
  );
  if (!notes.ok) throw new UsageError(`${path}: ${notes.issues.map(issueText).join('; ')}`);
  const hypotheses = eyeHypotheses({
    ...{ colours, device, profile, seen: seenIn(options) },
    ...chartOf(options),
  });
  if (!hypotheses.ok)
    throw new UsageError(`${options.profile}: ${hypotheses.issues.map(issueText).join('; ')}`);
  const points = pointOut(
    colours.map(({ lab }) => lab),
    notes.value,
    hypotheses.value,
  );
  const allSame = notes.value.every(({ words }) => words.length === 0);
  report(options.json, { points }, pointedSentences(points, allSame));
}

function sheetOf({ profile: path, colours: list }: EyeOptions): EyeSheet {
  const colours = list === undefined ? REFERENCE_COLOURS : colourListFrom(list);
  if (colours.length > EYE_MOST_COLOURS)
    throw new UsageError(
      `${list ?? ''}: found ${colours.length} colours, expected ${EYE_MOST_COLOURS} at most`,
    );
  const profile = readProfile(path);
  const values = eyeValues(profile, colours);
  if (!values.ok) throw new UsageError(`${path}: ${values.issues.map(issueText).join('; ')}`);
  return { profile, colours, ...values.value };
}

/** The chart that the profile was built from, as far as it is given with spectra. */
function chartOf({ measured, withoutUv, measuredAs: told }: EyeTellOptions): {
  readonly chart?: SpectralChart;
  readonly dark?: ArrayLike<number>;
} {
  if (measured === undefined) {
    if (withoutUv !== undefined)
      throw new UsageError('--without-uv: found no --measured, expected the reading in M1 as well');
    return {};
  }
  const set = readMeasuredFile(measured, measuredAs(told));
  const { device, process } = deviceOf(measured, set);
  if (set.spectra === undefined)
    throw new UsageError(`${measured}: found no spectra, expected them for what a light does`);
  const chart: SpectralChart = {
    channels: channelCount(process),
    device,
    grid: set.spectra.grid,
    spectra: set.spectra.values,
  };
  if (withoutUv === undefined) return { chart };
  const pair = pairedWith(set, withoutUv, measuredAs(told));
  return {
    chart: { ...chart, grid: pair.grid, spectra: spectraAtUv(pair, 1).values },
    dark: pair.without,
  };
}
