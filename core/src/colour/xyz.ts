/** Tristimulus values. Measured colours have Y = 100 for a perfect reflector, ICC ones Y = 1. */
export type Xyz = readonly [x: number, y: number, z: number];
