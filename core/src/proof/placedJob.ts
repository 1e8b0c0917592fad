/** What a job comes to on a device: a list of colours, or the pictures of a page. */
export interface PlacedJob {
  /** ΔE00 over all of it. */
  readonly mean: number;
  readonly p95: number;
  readonly largest: number;
  /** Mean sum of the device values, 1 = one full channel. */
  readonly ink: number;
  /** Mean of each channel. */
  readonly amounts: readonly number[];
}
