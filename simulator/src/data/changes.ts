/**
 * What happens to simulated devices over weeks: sizes are shares of ink density, of reflectance or of brightener.
 * Made up for this project, and set before the code that finds them.
 */
export const CHANGES = {
  /** A new lot of ink: weaker from its first sheet on, and its dots a little smaller. */
  inkLot: { density: -0.07, area: -0.01 },
  /** A head that ages: an ink weakens with each week. */
  ageingHead: { densityPerWeek: -0.0155, areaPerWeek: -0.0035 },
  /** A new lot of stock: less brightener, a little darker in the blue. */
  stockLot: { brightener: 0.55, blue: 0.988, green: 0.996 },
  /** One third of the width gets less of an ink. */
  zone: { from: 2 / 3, to: 1, density: -0.09, area: -0.015 },
} as const;

/** An instrument after a fall: everything reads darker, blue more than red. `along` runs from 0 at 380 nm to 1. */
export const INSTRUMENT_CHANGE = (along: number): number => 0.984 + 0.01 * along;
