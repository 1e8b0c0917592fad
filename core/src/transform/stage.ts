/** One step of a transform for many rows in place; row r begins at r·stride. */
export type Stage = (rows: Float64Array, count: number) => void;
