/** What inks are made of, as far as it matters to how they dry. */
export const INK_KINDS = ['pigment', 'dye', 'toner', 'offset', 'solvent', 'latex', 'uv', 'other'] as const;
export type InkKind = (typeof INK_KINDS)[number];
