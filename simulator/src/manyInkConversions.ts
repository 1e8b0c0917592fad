import { asCmyk } from '@melto/core/charts/expectedColours';
import { baseInks } from '@melto/core/device/baseInks';
import { channelCount } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';

/**
 * What front ends of more than four inks do when their colour management was left on: they take the document for CMYK and
 * mix their extra inks by themselves, as far as a share of what these could replace.
 */
export const MANY_INK_CONVERSIONS = {
  'as CMYK': { extra: 0 },
  'as CMYK, extra inks by itself': { extra: 0.6 },
} as const;

/** Share of a colour's two inks that a front end puts as one extra ink, where it has a name that tells of them. */
const MADE_OF: Readonly<Record<string, readonly [string, string]>> = {
  O: ['M', 'Y'],
  R: ['M', 'Y'],
  G: ['C', 'Y'],
  V: ['C', 'M'],
  B: ['C', 'M'],
};

/** Device values that reach the inks; row-major × channel. */
export function convertManyInks(process: Process, name: string, values: Float64Array): Float64Array {
  const conversion = Object.entries(MANY_INK_CONVERSIONS).find(([known]) => known === name)?.[1];
  const roles = baseInks(process);
  if (conversion === undefined || roles === undefined)
    throw new RangeError(
      `conversion "${name}", expected one of ${Object.keys(MANY_INK_CONVERSIONS).join(', ')}`,
    );
  const channels = channelCount(process);
  const out = new Float64Array(values.length);
  for (let at = 0; at < values.length; at += channels) {
    const cmyk = asCmyk(process, values, at);
    [...roles.base, roles.black].forEach((ink, i) => (out[at + ink] = cmyk[i]));
    process.channels.forEach((channel, ink) => {
      const pair = MADE_OF[channel.name];
      if (pair === undefined || conversion.extra === 0) return;
      const [one, other] = pair.map((own) => at + roles.base['CMY'.indexOf(own)]);
      const moved = conversion.extra * Math.min(out[one], out[other]);
      out[one] -= moved;
      out[other] -= moved;
      out[at + ink] = moved;
    });
  }
  return out;
}
