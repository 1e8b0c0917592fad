import { failure, success } from '../result.ts';
import type { Issue, Result } from '../result.ts';
import { BAR_ZONES, roomOf, shapeIssues, SLUR_LINES } from './colourBar.ts';
import type { BarPatch, BarPatchKind, ColourBar } from './colourBar.ts';
import { MOST_BAR_PATCHES } from './incomingSheet.ts';
import type { PressUnit } from './pressUnit.ts';

/** How the patches of a bar are written, for messages. */
const BAR_TEXT_FORM =
  'one line for each ink zone, its patches from left to right with commas: “K, C, M+Y, C50, C50+M40+Y40, paper, K along, K across”; “12 x” before a line repeats it';

/** Longest text of a bar. */
export const MOST_BAR_TEXT = 40_000;

/**
 * Reads a bar that exists already, described by its patches: a line for each ink zone. A patch is `paper`, an ink (`C`),
 * an ink with its tone (`C50`), inks over each other (`M+Y`, `C50+M40+Y40`), or lines of slur fields (`K along`).
 */
export function barFromText(
  text: string,
  units: readonly PressUnit[],
  size: Pick<ColourBar, 'zoneMm' | 'patchMm'>,
): Result<ColourBar> {
  if (text.length > MOST_BAR_TEXT)
    return failure(wrong(`at most ${MOST_BAR_TEXT} characters`, `${text.length}`));
  const { zoneMm, patchMm } = size;
  const wrongSize = shapeIssues(size);
  if (wrongSize.length > 0) return failure(...wrongSize);
  const room = roomOf(size);
  const patches: BarPatch[] = [];
  let zones = 0;
  const lines = text.split(/\r?\n/).map((line) => line.trim());
  for (const [at, line] of lines.entries()) {
    if (line === '') continue;
    const [, count, words] = /^(?:(\d{1,3})\s*[x×]\s+)?(.*)$/i.exec(line) ?? [];
    const repeats = count === undefined ? 1 : Number(count);
    const read: Omit<BarPatch, 'zone'>[] = [];
    for (const word of words.split(',').map((part) => part.trim())) {
      const patch = patchFromText(word, units);
      if (!patch.ok) return failure(...patch.issues.map((issue) => ({ ...issue, path: `line ${at + 1}` })));
      read.push(patch.value);
    }
    if (read.length > room)
      return failure({
        ...wrong(`at most ${room} patches of ${patchMm} mm in a zone of ${zoneMm} mm`, `${read.length}`),
        path: `line ${at + 1}`,
      });
    if (repeats === 0 || zones + repeats > BAR_ZONES.most)
      return failure({
        ...wrong(`1 to ${BAR_ZONES.most} ink zones`, `${zones + repeats}`),
        path: `line ${at + 1}`,
      });
    for (let repeat = 0; repeat < repeats; repeat++, zones++)
      for (const patch of read) patches.push({ ...patch, zone: zones });
  }
  if (zones === 0) return failure(wrong(BAR_TEXT_FORM, 'nothing'));
  if (patches.length > MOST_BAR_PATCHES)
    return failure(wrong(`at most ${MOST_BAR_PATCHES} patches`, `${patches.length}`));
  const unread = units.find(
    (_, unit) => !patches.some(({ kind, tones }) => kind === 'solid' && tones[unit] > 0),
  );
  if (unread !== undefined)
    return failure(wrong('a solid of each ink, which its keys are set by', `none of ${unread.ink}`));
  return success({ zones, zoneMm, patchMm, patches });
}

/** The text that a bar is described by; `barFromText` gives the same bar again. */
export function barText({ patches, zones }: ColourBar, units: readonly PressUnit[]): string {
  const lines = Array.from({ length: zones }, (_, zone) =>
    patches
      .filter((patch) => patch.zone === zone)
      .map((patch) => patchText(patch, units))
      .join(', '),
  );
  const out: { readonly line: string; count: number }[] = [];
  for (const line of lines) {
    const last = out.at(-1);
    if (last?.line === line) last.count++;
    else out.push({ line, count: 1 });
  }
  return out.map(({ line, count }) => (count === 1 ? line : `${count} x ${line}`)).join('\n');
}

function patchText({ kind, tones }: BarPatch, units: readonly PressUnit[]): string {
  const inks = units.flatMap(({ ink }, unit) => (tones[unit] > 0 ? [{ ink, tone: tones[unit] }] : []));
  if (inks.length === 0) return 'paper';
  if (kind === 'slur along') return `${inks[0].ink} along`;
  if (kind === 'slur across') return `${inks[0].ink} across`;
  return inks
    .map(({ ink, tone }) => (tone === 1 ? ink : `${ink}${spaced(ink)}${Number((100 * tone).toFixed(1))}`))
    .join('+');
}

/** A name that ends in a digit would swallow its tone. */
const spaced = (ink: string): string => (/\d$/.test(ink) || ink.length > 1 ? ' ' : '');

function patchFromText(word: string, units: readonly PressUnit[]): Result<Omit<BarPatch, 'zone'>> {
  const tones = units.map(() => 0);
  if (/^paper$/i.test(word)) return success({ kind: 'paper', tones });
  const lines = /^(.+?)\s+(along|across)$/i.exec(word);
  if (lines !== null) {
    const unit = unitNamed(lines[1], units);
    if (unit < 0) return failure(wrong(inksOf(units), `“${word.slice(0, 60)}”`));
    tones[unit] = SLUR_LINES;
    return success({ kind: `slur ${lines[2].toLowerCase()}` as BarPatchKind, tones });
  }
  for (const part of word.split('+').map((own) => own.trim())) {
    const whole = unitNamed(part, units);
    const [, name = '', percent] = /^(.*?)\s*(\d{1,3}(?:\.\d+)?)\s*%?$/.exec(part) ?? [];
    const unit = whole >= 0 ? whole : unitNamed(name, units);
    const tone = whole >= 0 ? 100 : Number(percent);
    if (unit < 0 || !(tone > 0 && tone <= 100))
      return failure(wrong(inksOf(units), `“${part.slice(0, 60)}”`));
    if (tones[unit] > 0) return failure(wrong('each ink once in a patch', `“${word.slice(0, 60)}”`));
    tones[unit] = tone / 100;
  }
  return kindOf(units, tones, word);
}

function kindOf(
  units: readonly PressUnit[],
  tones: readonly number[],
  word: string,
): Result<Omit<BarPatch, 'zone'>> {
  const inks = units.flatMap(({ ink }, unit) => (tones[unit] > 0 ? [{ ink, tone: tones[unit] }] : []));
  const made = (kind: BarPatchKind) => success({ kind, tones });
  if (inks.length === 1) return made(inks[0].tone === 1 ? 'solid' : 'tint');
  if (inks.every(({ tone }) => tone === 1)) return made('overprint');
  const grey = inks.length === 3 && ['C', 'M', 'Y'].every((ink) => inks.some((own) => own.ink === ink));
  if (grey) return made('grey');
  return failure(
    wrong('tints of one ink, solids over each other, or a grey of C, M and Y', `“${word.slice(0, 60)}”`),
  );
}

function unitNamed(name: string, units: readonly PressUnit[]): number {
  const asked = name.trim().toLowerCase();
  return units.findIndex(({ ink }) => ink.toLowerCase() === asked);
}

const inksOf = (units: readonly PressUnit[]): string =>
  `paper, or inks of this run (${units.map(({ ink }) => ink).join(', ')}) with tones over 0 to 100`;

function wrong(expected: string, found: string): Issue {
  return { code: 'bar.text', path: 'bar', expected, found };
}
