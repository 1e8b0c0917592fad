import type { Routes } from '@/server/dispatch';
import * as keptProfiles from './route';
import * as id from './[id]/route';
import * as idAway from './[id]/away/route';
import * as idFile from './[id]/file/route';

export const KEPT_PROFILE_ROUTES: Routes = {
  '/api/kept-profiles': keptProfiles,
  '/api/kept-profiles/{id}': id,
  '/api/kept-profiles/{id}/away': idAway,
  '/api/kept-profiles/{id}/file': idFile,
};
