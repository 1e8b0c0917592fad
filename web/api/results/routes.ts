import type { Routes } from '@/server/dispatch';
import * as idCurves from './[id]/curves/route';
import * as idFile from './[id]/file/route';
import * as idInForce from './[id]/in-force/route';
import * as idLink from './[id]/link/route';
import * as idNote from './[id]/note/route';
import * as idPackage from './[id]/package/route';
import * as idReport from './[id]/report/route';
import * as idSeen from './[id]/seen/route';
import * as idSettings from './[id]/settings/route';

export const RESULT_ROUTES: Routes = {
  '/api/results/{id}/curves': idCurves,
  '/api/results/{id}/file': idFile,
  '/api/results/{id}/in-force': idInForce,
  '/api/results/{id}/link': idLink,
  '/api/results/{id}/note': idNote,
  '/api/results/{id}/package': idPackage,
  '/api/results/{id}/report': idReport,
  '/api/results/{id}/seen': idSeen,
  '/api/results/{id}/settings': idSettings,
};
