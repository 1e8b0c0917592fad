/** CIELAB; the white it refers to is named where it is made. */
export type Lab = readonly [lightness: number, a: number, b: number];
/** Lightness, chroma, hue in degrees 0..360. */
export type Lch = readonly [lightness: number, chroma: number, hueDeg: number];
