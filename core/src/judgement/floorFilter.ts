/** What a list of conditions can be narrowed to: what fails, what is due, what can be read and what rests. */
export const FLOOR_FILTERS = ['fails', 'due', 'ready', 'rest'] as const;
export type FloorFilter = (typeof FLOOR_FILTERS)[number];
