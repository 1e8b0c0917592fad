/** Most pixels of the longer side of a picture that is written in the browser. */
export const WRITTEN_SIDE = 4000;
