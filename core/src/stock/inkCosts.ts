/** What an ink costs, and how much of it lies on a square metre that it covers in full. */
export interface InkCost {
  readonly pricePerLitre: number;
  readonly millilitresPerM2: number;
}

/** Costs of the inks of a set, in the order of a device's channels. */
export type InkCosts = readonly InkCost[];

/** What can be told of an ink. */
export const INK_COST_RANGES = {
  pricePerLitre: { minimum: 0, maximum: 10_000 },
  millilitresPerM2: { minimum: 0, maximum: 100 },
} as const;

/**
 * What the inks of a square metre cost, in the currency of the prices.
 * @param amounts mean of each ink over the area, 1 = full.
 * @returns undefined where the costs are not those of as many inks.
 */
export function inkCost(amounts: ArrayLike<number>, costs: InkCosts): number | undefined {
  if (costs.length !== amounts.length || costs.length === 0) return undefined;
  return costs.reduce(
    (sum, { pricePerLitre, millilitresPerM2 }, i) =>
      sum + (amounts[i] * millilitresPerM2 * pricePerLitre) / 1000,
    0,
  );
}
