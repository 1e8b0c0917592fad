import type { Routes } from '@/server/dispatch';
import * as code from './[code]/route';
import * as codeFile from './[code]/file/route';
import * as codeMarks from './[code]/marks/route';
import * as codePasses from './[code]/passes/route';
import * as codePatches from './[code]/patches/route';
import * as codeRack from './[code]/rack/route';
import * as codeReading from './[code]/reading/route';
import * as codeReadingPreview from './[code]/reading/preview/route';
import * as codeUnder from './[code]/under/route';

export const SHEET_ROUTES: Routes = {
  '/api/sheets/{code}': code,
  '/api/sheets/{code}/file': codeFile,
  '/api/sheets/{code}/marks': codeMarks,
  '/api/sheets/{code}/passes': codePasses,
  '/api/sheets/{code}/patches': codePatches,
  '/api/sheets/{code}/rack': codeRack,
  '/api/sheets/{code}/reading': codeReading,
  '/api/sheets/{code}/reading/preview': codeReadingPreview,
  '/api/sheets/{code}/under': codeUnder,
};
