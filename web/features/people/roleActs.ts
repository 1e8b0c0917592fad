import { ROLES } from '@melto/core/people/role';
import type { Role } from '@melto/core/people/role';
import type { Endpoint } from '@/endpoints/endpoint';

/** What each role may change, in the words of the routes that check it: those before it are left out. */
export function roleActs(
  endpoints: readonly Pick<Endpoint, 'method' | 'who' | 'says'>[],
): readonly { readonly role: Role; readonly acts: readonly string[] }[] {
  return ROLES.map((role) => ({
    role,
    acts: endpoints
      .filter(({ method, who }) => who === role && method !== 'GET')
      .map(({ says }) => says.split(/[;:]/)[0])
      .sort((a, b) => a.localeCompare(b, 'en-GB')),
  }));
}
