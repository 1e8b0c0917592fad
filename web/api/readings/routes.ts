import type { Routes } from '@/server/dispatch';
import * as id from './[id]/route';
import * as idBrightener from './[id]/brightener/route';
import * as idFile from './[id]/file/route';
import * as idPatches from './[id]/patches/route';
import * as idUnder from './[id]/under/route';
import * as idWithdrawn from './[id]/withdrawn/route';

export const READING_ROUTES: Routes = {
  '/api/readings/{id}': id,
  '/api/readings/{id}/brightener': idBrightener,
  '/api/readings/{id}/file': idFile,
  '/api/readings/{id}/patches': idPatches,
  '/api/readings/{id}/under': idUnder,
  '/api/readings/{id}/withdrawn': idWithdrawn,
};
