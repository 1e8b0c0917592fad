import type { Routes } from '@/server/dispatch';
import * as runs from './route';
import * as id from './[id]/route';
import * as idAnalysis from './[id]/analysis/route';
import * as idBarFile from './[id]/bar-file/route';
import * as idLink from './[id]/link/route';
import * as idMoves from './[id]/moves/route';
import * as idOkSheet from './[id]/ok-sheet/route';
import * as idOutside from './[id]/outside/route';
import * as idPhase from './[id]/phase/route';
import * as idPull from './[id]/pull/route';
import * as idReport from './[id]/report/route';
import * as idSettings from './[id]/settings/route';
import * as idSheetFiles from './[id]/sheet-files/route';
import * as idSheets from './[id]/sheets/route';
import * as idStream from './[id]/stream/route';
import * as comparison from './comparison/route';

export const RUN_ROUTES: Routes = {
  '/api/runs': runs,
  '/api/runs/{id}': id,
  '/api/runs/{id}/analysis': idAnalysis,
  '/api/runs/{id}/bar-file': idBarFile,
  '/api/runs/{id}/link': idLink,
  '/api/runs/{id}/moves': idMoves,
  '/api/runs/{id}/ok-sheet': idOkSheet,
  '/api/runs/{id}/outside': idOutside,
  '/api/runs/{id}/phase': idPhase,
  '/api/runs/{id}/pull': idPull,
  '/api/runs/{id}/report': idReport,
  '/api/runs/{id}/settings': idSettings,
  '/api/runs/{id}/sheet-files': idSheetFiles,
  '/api/runs/{id}/sheets': idSheets,
  '/api/runs/{id}/stream': idStream,
  '/api/runs/comparison': comparison,
};
