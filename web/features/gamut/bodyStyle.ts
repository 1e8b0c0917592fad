export type BodyStyle = 'solid' | 'lines' | 'clear';
/** In its own colours, or grey where the other body is as large. */
export type BodyPaint = 'own' | 'beyond';

/** ΔE00 beyond the other body at which a colour is shown whole. */
export const WHOLE_AT = 8;
