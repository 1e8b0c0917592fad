import type { Routes } from '@/server/dispatch';
import * as feeds from './route';
import * as idReadings from './[id]/readings/route';
import * as idRemoved from './[id]/removed/route';
import * as idRun from './[id]/run/route';
import * as idUnder from './[id]/under/route';
import * as idWaiting from './[id]/waiting/route';

export const FEED_ROUTES: Routes = {
  '/api/feeds': feeds,
  '/api/feeds/{id}/readings': idReadings,
  '/api/feeds/{id}/removed': idRemoved,
  '/api/feeds/{id}/run': idRun,
  '/api/feeds/{id}/under': idUnder,
  '/api/feeds/{id}/waiting': idWaiting,
};
