import type { Routes } from '@/server/dispatch';
import * as colourLists from './route';
import * as id from './[id]/route';
import * as idFile from './[id]/file/route';
import * as idRemoved from './[id]/removed/route';
import * as idReport from './[id]/report/route';
import * as measured from './measured/route';
import * as preview from './preview/route';

export const COLOUR_LIST_ROUTES: Routes = {
  '/api/colour-lists': colourLists,
  '/api/colour-lists/{id}': id,
  '/api/colour-lists/{id}/file': idFile,
  '/api/colour-lists/{id}/removed': idRemoved,
  '/api/colour-lists/{id}/report': idReport,
  '/api/colour-lists/measured': measured,
  '/api/colour-lists/preview': preview,
};
