import { describe, expect, it } from 'vitest';
import { lesserRole, mayDo, roleOf, ROLES } from './role.ts';

describe('a role', () => {
  it('may do what those before it may, and nothing of those after', () => {
    ROLES.forEach((role, i) => ROLES.forEach((least, j) => expect(mayDo(role, least)).toBe(i >= j)));
  });

  it('that is not known is the least', () => {
    expect(roleOf('specialist')).toBe('specialist');
    for (const word of ['', 'Keeper', 'admin']) expect(roleOf(word)).toBe('viewer');
  });

  it('is the lesser of two', () => {
    expect(lesserRole('keeper', 'operator')).toBe('operator');
    expect(lesserRole('viewer', 'keeper')).toBe('viewer');
    expect(lesserRole('specialist', 'specialist')).toBe('specialist');
  });
});
