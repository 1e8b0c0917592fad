/** What a list of conditions can be narrowed to: what fails, what is due, what can be read and what rests. */
export const FLOOR_FILTERS = ['fails', 'due', 'ready', 'rest'] as const;
export type FloorFilter = (typeof FLOOR_FILTERS)[number];

/** How the floor is ordered: what needs someone first, by device, or by stock. */
export const FLOOR_ORDERS = ['attention', 'device', 'stock'] as const;
export type FloorOrder = (typeof FLOOR_ORDERS)[number];
