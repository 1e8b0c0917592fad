import { basename } from 'node:path';
import { channelCount } from '@melto/core/device/process';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { estimateUvShare, rowLetter, studyFields } from '@melto/core/light/brightenerStudy';
import { coloursUnder } from '@melto/core/light/colourUnder';
import { predictStudyPage } from '@melto/core/light/predictStudyPage';
import { readPicks } from '@melto/core/light/readPicks';
import { studyValues } from '@melto/core/light/studyValues';
import { spectraAtUv } from '@melto/core/light/ultraviolet';
import { issueText } from '@melto/core/result';
import { drawnPdf } from '@melto/paper/chartPdf';
import { processTag } from '@melto/paper/namedInks';
import { drawStudyPage } from '@melto/paper/studyPage';
import { deviceOf, measuredAs, paperOf, readBytes, readMeasuredFile, report, writeFile } from './files.ts';
import { pairedWith, seenIn } from './light.ts';
import { pageProcess, readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface StudyPageOptions {
  readonly profile: string;
  readonly paper: string;
  readonly out: string;
  readonly json?: boolean;
}

/** The page of greys of a brightener study, in values of the device. */
export async function studyPage({ profile: path, paper, out, json }: StudyPageOptions): Promise<void> {
  const profile = readProfile(path);
  const values = fieldValues(path, profile);
  const process = pageProcess(path, profile);
  const channels = channelCount(process);
  const nowMs = Date.now();
  const drawing = drawStudyPage(
    paperOf(paper),
    studyFields().map((_, i) => [...values.subarray(i * channels, (i + 1) * channels)]),
    {
      condition: basename(path),
      date: new Date(nowMs).toISOString().slice(0, 10),
      how: 'print without colour management, as the chart of the profile was',
    },
  );
  writeFile(out, await drawnPdf([drawing], { title: 'Brightener study', tag: processTag(process) }, nowMs));
  report(json, { out, fields: studyFields().length }, [`${out}: ${studyFields().length} greys`]);
}

export interface StudyTellOptions {
  readonly profile: string;
  readonly measured: string;
  readonly withoutUv: string;
  readonly measuredAs?: string;
  readonly light: string;
  readonly observer: string;
  readonly json?: boolean;
}

/** The share of ultraviolet that acts in a light, from what eyes picked on the page. */
export function studyTell(path: string, options: StudyTellOptions): void {
  const picks = readPicks(Buffer.from(readBytes(path)).toString('utf8'));
  if (!picks.ok) throw new UsageError(`${path}: ${picks.issues.map(issueText).join('; ')}`);
  const seen = seenIn(options);
  const told = measuredAs(options.measuredAs);
  const lit = readMeasuredFile(options.measured, told);
  const pair = pairedWith(lit, options.withoutUv, told);
  const { device, process } = deviceOf(options.measured, lit);
  const channels = channelCount(process);
  const fields = fieldValues(options.profile, readProfile(options.profile));
  if (fields.length !== studyFields().length * channels)
    throw new UsageError(
      `${options.profile}: found ${fields.length / studyFields().length} channels, expected the ${channels} of ${options.measured}`,
    );
  const page = predictStudyPage({
    ...{ channels, device, fields },
    without: coloursUnder(spectraAtUv(pair, 0), seen),
    lit: coloursUnder(spectraAtUv(pair, 1), seen),
  });
  const found = estimateUvShare(page, studyFields(), picks.value);
  const { share, range, tells, turn, scatter, leftOver, atTheEnd } = found;
  report(options.json, { ...found }, [
    tells
      ? `share of the ultraviolet of M1: ${share.toFixed(2)}, nine of ten times between ${range[0].toFixed(2)} and ${range[1].toFixed(2)}`
      : `next to no brightener: greys turn by ${turn.toFixed(1)} in b*; nothing depends on the ultraviolet of the light`,
    ...(scatter === null ? [] : [`picks of one row differ by ${scatter.toFixed(1)} fields`]),
    ...(atTheEnd.length === 0
      ? []
      : [
          `picks at an end in row ${atTheEnd.map(rowLetter).join(', ')}: what is neutral lies perhaps beyond it`,
        ]),
    `chroma that is left at that share: ${leftOver.toFixed(1)}`,
  ]);
}

function fieldValues(path: string, profile: IccProfile): Float64Array {
  const values = studyValues(profile);
  if (!values.ok) throw new UsageError(`${path}: ${values.issues.map(issueText).join('; ')}`);
  return values.value;
}
