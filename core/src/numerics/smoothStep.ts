/** 0 up to 0, 1 from 1 on, and between them 3t² − 2t³. */
export function smoothStep(t: number): number {
  if (t <= 0) return 0;
  return t >= 1 ? 1 : t * t * (3 - 2 * t);
}
