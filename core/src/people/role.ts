/** What people of a house may do; each role may do what the ones before it may. */
export const ROLES = ['viewer', 'operator', 'specialist', 'keeper'] as const;
export type Role = (typeof ROLES)[number];

/** Whether a role may do what is for another. */
export const mayDo = (role: Role, least: Role): boolean => ROLES.indexOf(role) >= ROLES.indexOf(least);

/** The role that is written; the least where it is none. */
export const roleOf = (word: string): Role => ROLES.find((role) => role === word) ?? 'viewer';

/** The lesser of two. */
export const lesserRole = (a: Role, b: Role): Role => (mayDo(a, b) ? b : a);
