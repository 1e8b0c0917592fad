'use client';

import { createContext, use } from 'react';
import type { ReactNode } from 'react';
import { mayDo } from '@melto/core/people/role';
import type { Role } from '@melto/core/people/role';
import type { Endpoint } from '@/endpoints/endpoint';

/** What whoever looks at the page may do; parts that are shown by themselves, as in tests, keep nothing back. */
export const OwnRole = createContext<Role>('keeper');

/** Whether whoever looks at the page may call an endpoint: what the server would refuse is not offered. */
export const useMay = (act: Pick<Endpoint, 'who'>): boolean => mayCall(use(OwnRole), act);

/** Whether a role may call an endpoint. */
export const mayCall = (role: Role, { who }: Pick<Endpoint, 'who'>): boolean =>
  who === 'anyone' || mayDo(role, who);

/** Shows what calls an endpoint to those who may call it. */
export function May({ act, children }: { act: Pick<Endpoint, 'who'>; children: ReactNode }) {
  return useMay(act) ? children : null;
}
