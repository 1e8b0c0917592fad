/** Stocks of one paper trial, and patches of its chart: few, since many sheets are read. */
export const TRIAL_STOCKS = { least: 2, most: 24 } as const;
export const TRIAL_PATCHES = { least: 200, most: 600 } as const;
