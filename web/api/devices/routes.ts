import type { Routes } from '@/server/dispatch';
import * as devices from './route';
import * as id from './[id]/route';
import * as idAway from './[id]/away/route';
import * as idDuty from './[id]/duty/route';

export const DEVICE_ROUTES: Routes = {
  '/api/devices': devices,
  '/api/devices/{id}': id,
  '/api/devices/{id}/away': idAway,
  '/api/devices/{id}/duty': idDuty,
};
