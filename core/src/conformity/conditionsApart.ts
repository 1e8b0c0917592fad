import type { MeasurementConditions } from '../cgats/patchSet.ts';

type Field = 'backing' | 'illuminant' | 'observer' | 'filter';

const UNPOLARISED = /^(none|no|off|without|unpolari[sz]ed)\b|^$/;

/**
 * One spelling for each way a condition of measurement is written: `2 degree`, `2°` and `CIE 1931` are one observer,
 * `D50`, `CIE D50` and `5000 K daylight` one light, `wb`, `White backing` and `self` backing one white.
 */
const ONE_SPELLING: Readonly<Record<Field, (text: string) => string>> = {
  backing: (text) =>
    /black|\bbb\b/.test(text) ? 'black' : /white|\bwb\b|self|substrate/.test(text) ? 'white' : text,
  illuminant: (text) => {
    const daylight =
      /\bd\s?(50|55|65|75|93)\b/.exec(text)?.[1] ?? /\b(50|55|65|75|93)0[0-9]\s?k\b/.exec(text)?.[1];
    if (daylight !== undefined) return `d${daylight}`;
    return text.replace(/\b(cie|standard|illuminant)\b/g, '').trim();
  },
  observer: (text) => {
    if (/1931/.test(text)) return '2';
    if (/1964/.test(text)) return '10';
    return /(?:^|\D)(10|2)(?:\D|$)/.exec(text)?.[1] ?? text;
  },
  filter: (text) => {
    if (UNPOLARISED.test(text)) return 'none';
    if (/^pol|polari[sz]/.test(text)) return 'polariser';
    return /uv/.test(text) ? 'uv-cut' : text;
  },
};

function spelt(field: Field, text: string): string {
  return ONE_SPELLING[field](
    text
      .toLowerCase()
      .replace(/[_\s]+/g, ' ')
      .trim(),
  );
}

/** The mode by ISO 13655, from the filter where only that is told: M3 has a polariser, M2 cuts ultraviolet. */
function modeOf({ mode, filter }: MeasurementConditions): MeasurementConditions['mode'] {
  if (mode !== undefined || filter === undefined) return mode;
  const kind = spelt('filter', filter);
  if (kind === 'polariser') return 'M3';
  return kind === 'uv-cut' ? 'M2' : undefined;
}

/**
 * How a reading was made otherwise than its aims, in words. Of the mode it is said where one of both does not tell it;
 * other conditions are compared where both do, whichever way each is written.
 */
export function conditionsApart(read: MeasurementConditions, aims: MeasurementConditions): string[] {
  const words: string[] = [];
  const [readMode, aimMode] = [modeOf(read), modeOf(aims)];
  if (readMode !== undefined && aimMode !== undefined && readMode !== aimMode)
    words.push(`read in ${readMode}, the aims are for ${aimMode}`);
  else if (readMode === 'M3' && aimMode === undefined && spelt('filter', aims.filter ?? 'untold') === 'none')
    words.push('read in M3 with a polariser, the aims are unpolarised');
  else if (readMode !== undefined && aimMode === undefined)
    words.push(`read in ${readMode}, the aims do not tell their mode`);
  else if (readMode === undefined && aimMode !== undefined)
    words.push(`the reading does not tell its mode, the aims are for ${aimMode}`);
  for (const field of ['backing', 'illuminant', 'observer'] as const) {
    const [own, other] = [read[field], aims[field]];
    if (own !== undefined && other !== undefined && spelt(field, own) !== spelt(field, other))
      words.push(`${field} ${own}, the aims are for ${other}`);
  }
  return words;
}
