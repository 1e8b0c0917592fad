/** Caps that keep a hostile profile from using up memory. */
export const ICC_LIMITS = { bytes: 64_000_000, tags: 200, clutValues: 8_000_000 } as const;
