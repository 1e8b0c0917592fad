import type { Routes } from '@/server/dispatch';
import * as aimSets from './route';
import * as idColours from './[id]/colours/route';
import * as idFile from './[id]/file/route';
import * as idMode from './[id]/mode/route';
import * as idOnPaper from './[id]/on-paper/route';
import * as idRemoved from './[id]/removed/route';
import * as file from './file/route';
import * as papers from './papers/route';
import * as readings from './readings/route';

export const AIM_SET_ROUTES: Routes = {
  '/api/aim-sets': aimSets,
  '/api/aim-sets/{id}/colours': idColours,
  '/api/aim-sets/{id}/file': idFile,
  '/api/aim-sets/{id}/mode': idMode,
  '/api/aim-sets/{id}/on-paper': idOnPaper,
  '/api/aim-sets/{id}/removed': idRemoved,
  '/api/aim-sets/file': file,
  '/api/aim-sets/papers': papers,
  '/api/aim-sets/readings': readings,
};
