import type { Routes } from '@/server/dispatch';
import * as people from './route';
import * as id from './[id]/route';
import * as idAway from './[id]/away/route';
import * as idPassphrase from './[id]/passphrase/route';

export const PEOPLE_ROUTES: Routes = {
  '/api/people': people,
  '/api/people/{id}': id,
  '/api/people/{id}/away': idAway,
  '/api/people/{id}/passphrase': idPassphrase,
};
