import { CMYK } from '@melto/core/device/process';
import { listReadingsOfProcess } from '@melto/store/readings';
import type { ReadingOfHouse } from '@melto/store/readings';
import type { Context } from '../kernel/context.ts';

export type { ReadingOfHouse };

const MOST = 60;

/** The latest complete readings that could become a house standard: of charts that ask for CMYK values. */
export function readingsToAim({ database }: Context): Promise<ReadingOfHouse[]> {
  return listReadingsOfProcess(database, CMYK.name, MOST);
}
