import type { DensityStatus } from '@melto/core/density/density';

/** The house's density status, as the page was told it; the same on server and client. */
let status: DensityStatus = 'E';

/** Told once by the frame of all pages, before anything of them is drawn. */
export function tellHouseDensity(own: DensityStatus): void {
  status = own;
}

export const houseDensity = (): DensityStatus => status;
