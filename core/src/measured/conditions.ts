import type { Mode } from './columns.ts';
import type { MeasuredKeyword } from './measuredTable.ts';

/** What a file tells of how it was measured and computed; undefined where it tells nothing. */
export interface ToldConditions {
  readonly mode?: Mode;
  readonly illuminant?: string;
  /** Degrees of the standard observer. */
  readonly observer?: 2 | 10;
  /** Colours relative to the paper in place of a perfect diffuser. */
  readonly whiteBase?: 'paper' | 'absolute';
  readonly filter?: string;
  readonly backing?: 'black' | 'white';
  readonly geometry?: string;
  readonly instrument?: string;
  /** The instrument's bandpass was taken out of the spectra when the file was taken. */
  readonly bandpass?: 'taken out';
}

/** Keywords that say how a sheet was measured; a title that holds `M1` by chance is none, nor are 115 g/m2 of paper. */
const OF_PRINTING = /^PRINT|PAPER|SUBSTRATE|WEIGHT$/i;
const OF_MEASURING =
  /MEASURE|MODE|FILTER|CONDITION|ILLUMIN|OBSERVER|WEIGHTING|BACKING|GEOMETRY|COMPUTATIONAL|WHITE_?BASE|POLARI|LIGHT/i;
const ILLUMINANT = /(?:^|[^A-Z0-9])(D\d{2}|F\d{1,2}|TL84|A|C)(?:$|[^A-Z0-9])/i;

/** Collects the conditions of measurement from whatever keywords they stand in. */
export function toldConditions(keywords: readonly MeasuredKeyword[]): ToldConditions {
  const told: { -readonly [K in keyof ToldConditions]: ToldConditions[K] } = {};
  for (const { name, value } of keywords) {
    const upper = name.toUpperCase();
    const ofInstrument = upper === 'INSTRUMENTATION' || upper === 'INSTRUMENT';
    if (ofInstrument) told.instrument = value || told.instrument;
    if (!ofInstrument && (OF_PRINTING.test(upper) || !OF_MEASURING.test(upper))) continue;
    // The name of an instrument may hold what reads like a mode.
    if (!ofInstrument) told.mode ??= modeOf(upper, value);
    told.whiteBase ??= whiteBaseOf(upper, value);
    told.backing ??= backingOf(upper, value);
    const illuminant = illuminantOf(upper, value);
    if (illuminant !== undefined) told.illuminant ??= illuminant;
    const observer = observerOf(upper, value);
    if (observer !== undefined) told.observer ??= observer;
    if (/^FILTER/.test(upper) && value !== '') told.filter ??= value;
    else
      told.filter ??= /\b(no|without) polari[sz]\w+( filter)?\b/i.test(value)
        ? 'none'
        : /\bFilter\s*[=:]?\s*([\w-]+)/i.exec(value)?.[1];
    if (/GEOMETRY/.test(upper)) told.geometry ??= value;
  }
  return told;
}

/** Why computed colours cannot be used as they are: they are for another light, observer or white; undefined where nothing says so. */
export function foreignLight({ illuminant, observer, whiteBase }: ToldConditions): string | undefined {
  if (illuminant !== undefined && illuminant !== 'D50') return `colours for ${illuminant}`;
  if (observer === 10) return 'colours for the 10° observer';
  return whiteBase === 'paper' ? 'colours relative to the paper' : undefined;
}

function modeOf(name: string, value: string): Mode | undefined {
  const found = /(?:^|[^A-Z0-9/])(M[0-3])(?:$|[^A-Z0-9])/i.exec(value);
  if (found !== null) return found[1].toUpperCase() as Mode;
  const filter = /FILTER/.test(name) ? value : (/\bFilter\s*[=:]?\s*([\w -]+)/i.exec(value)?.[1] ?? '');
  if (/^(POL|POLARI[SZ]ED|POLARI[SZ]ATION)/i.test(filter)) return 'M3';
  if (/^(UV[- ]?CUT|UV[- ]?FILTER|NO[- ]?UV|UV[- ]?EXCLUDED|UVC)/i.test(filter)) return 'M2';
  return undefined;
}

function whiteBaseOf(name: string, value: string): ToldConditions['whiteBase'] {
  const words = /WHITE_?BASE/.test(name) ? value : (/white[_ ]?base\s*[=:]?\s*(\w+)/i.exec(value)?.[1] ?? '');
  if (/^(pap|rel|substrate)/i.test(words)) return 'paper';
  return /^abs/i.test(words) ? 'absolute' : undefined;
}

function backingOf(name: string, value: string): ToldConditions['backing'] {
  const words = /BACKING/.test(name)
    ? value
    : (
        /backing\s*[=:]\s*\w+/i.exec(value) ??
        /\b(black|white|self)[ -]backing\b/i.exec(value) ??
        /backing\s+\w+/i.exec(value) ?? ['']
      )[0];
  if (/black|\bBB\b/i.test(words)) return 'black';
  return /white|\bWB\b|self/i.test(words) ? 'white' : undefined;
}

function illuminantOf(name: string, value: string): string | undefined {
  if (/ILLUMIN|LIGHT/.test(name) || /ILLUMIN/i.test(value)) {
    const after = /ILLUMIN\w*[^A-Z0-9]*(.*)$/i.exec(value)?.[1] ?? value;
    return ILLUMINANT.exec(after)?.[1].toUpperCase();
  }
  // Without the word itself only names that can be nothing else.
  return /(?:^|[^A-Z0-9])(D(?:50|55|65|75|93)|TL84|F\d{1,2})(?:$|[^A-Z0-9])/i.exec(value)?.[1].toUpperCase();
}

function observerOf(name: string, value: string): 2 | 10 | undefined {
  const words = /OBSERVER/.test(name)
    ? value
    : (/OBSERVER\w*[^A-Z0-9]*(.{0,12})/i.exec(value)?.[1] ??
      /(?:^|[^\d])(2|10)\s*(?:°|deg)/i.exec(value)?.[0] ??
      '');
  const found = /(?:^|[^\d])(2|10)(?:$|[^\d])/.exec(words);
  return found === null ? undefined : (Number(found[1]) as 2 | 10);
}
