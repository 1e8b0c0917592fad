import type { Routes } from '@/server/dispatch';
import * as desk from './route';
import * as left from './left/route';
import * as taken from './taken/route';

export const DESK_ROUTES: Routes = {
  '/api/desk': desk,
  '/api/desk/left': left,
  '/api/desk/taken': taken,
};
