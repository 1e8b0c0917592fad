import type { Routes } from '@/server/dispatch';
import * as lights from './route';
import * as id from './[id]/route';
import * as idAway from './[id]/away/route';
import * as idUltraviolet from './[id]/ultraviolet/route';

export const LIGHT_ROUTES: Routes = {
  '/api/lights': lights,
  '/api/lights/{id}': id,
  '/api/lights/{id}/away': idAway,
  '/api/lights/{id}/ultraviolet': idUltraviolet,
};
