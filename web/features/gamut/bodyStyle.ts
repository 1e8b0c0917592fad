export type BodyStyle = 'solid' | 'lines' | 'clear';
/** In its own colours, or grey where the other body is as large. */
export type BodyPaint = 'own' | 'beyond';

/** ΔE00 beyond the other body at which a colour is shown whole. */
export const WHOLE_AT = 8;

/** Bodies that stand beside the two, and the dashes that each is drawn with: in a cut, and in its row of the table. */
export const BESIDE = [
  { dashes: '1 3', sign: '··' },
  { dashes: '8 3 1 3', sign: '–·' },
] as const;
