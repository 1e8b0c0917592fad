import type { Routes } from '@/server/dispatch';
import * as paperTrials from './route';
import * as id from './[id]/route';
import * as idRemoved from './[id]/removed/route';
import * as points from './points/route';

export const PAPER_TRIAL_ROUTES: Routes = {
  '/api/paper-trials': paperTrials,
  '/api/paper-trials/{id}': id,
  '/api/paper-trials/{id}/removed': idRemoved,
  '/api/paper-trials/points': points,
};
