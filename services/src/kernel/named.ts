import { Problem } from './problem.ts';

/** A name as it is kept: without blanks around it and with single ones within. */
export function named(text: string, field: string, what: string): string {
  const name = text.trim().replace(/\s+/g, ' ');
  if (name === '')
    throw new Problem('bad-input', `The ${what} has no name.`, 'Name it as people call it.', field);
  return name;
}
