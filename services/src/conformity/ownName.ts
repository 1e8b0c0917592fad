import { namesStandard } from '@melto/core/conformity/standardNames';
import { Problem } from '../kernel/problem.ts';

/** Refuses a name for a set of the house's own that could be taken for a standard's. */
export function refuseStandardName(name: string): void {
  const standard = namesStandard(name);
  if (standard !== undefined)
    throw new Problem(
      'bad-input',
      `A set of your own cannot be called “${name}”: it would be taken for ${standard}.`,
      'Begin its name with House, or leave the name of the standard out.',
      'name',
    );
}
