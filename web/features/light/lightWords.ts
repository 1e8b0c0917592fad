import type { LightFigures } from '@melto/core/light/describeLight';

/** Farther from D50 than this in u′, v′, a light is none to compare prints in (ISO 3664). */
const MOST_FROM_D50 = 0.005;
/** Colour rendering that comparing prints takes (ISO 3664). */
const LEAST_RENDERING = 90;

/** What a light is good for, in one sentence. */
export function lightSentence({ temperature, fromD50, rendering, fromDaylight }: LightFigures): string {
  if (temperature === null)
    return 'It is no white light: it has no colour temperature, and prints in it look tinted.';
  if (rendering === null)
    return 'It is too far from white for a figure of colour rendering: prints in it look tinted.';
  const poor = rendering.general < LEAST_RENDERING;
  if (fromD50 <= MOST_FROM_D50)
    return poor
      ? `It is as white as D50, but shows colours as D50 does not: Ra ${generalFigure(rendering.general)}, where comparing prints takes ${LEAST_RENDERING}.`
      : 'Near enough to D50 to compare prints in, as far as colour and colour rendering tell.';
  const tint = fromDaylight > 0.01 || Math.abs(temperature.duv) > 0.006 ? tintOf(temperature.duv) : '';
  const warm =
    temperature.kelvin < 4500
      ? 'Warmer than daylight'
      : temperature.kelvin > 6000
        ? 'Colder than D50'
        : 'Near daylight, but not D50';
  return `${warm}${tint}${poor ? `, and it changes colours (Ra ${generalFigure(rendering.general)})` : ''}. A profile of its own shows what hangs in it as it was meant.`;
}

const tintOf = (duv: number): string =>
  duv > 0.006 ? ', with a green tint' : duv < -0.006 ? ', with a pink tint' : '';

/** A special index of colour rendering, in whole numbers as it is printed. */
export const figure = (index: number): string => {
  const whole = Math.round(index);
  return whole < 0 ? `−${-whole}` : String(whole);
};

/** The general index: to a tenth, since published ones that end in a half are rounded either way. */
export const generalFigure = (index: number): string => index.toFixed(1).replace('-', '−');
