import type { Routes } from '@/server/dispatch';
import * as passkeys from './route';
import * as idRemoved from './[id]/removed/route';
import * as options from './options/route';

export const PASSKEY_ROUTES: Routes = {
  '/api/passkeys': passkeys,
  '/api/passkeys/options': options,
  '/api/passkeys/{id}/removed': idRemoved,
};
