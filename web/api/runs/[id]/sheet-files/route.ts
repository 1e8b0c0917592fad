import { takeSheetFile } from '@melto/services/press/sheetFile';
import { TAKE_SHEET_FILE } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const POST = changing(TAKE_SHEET_FILE, ({ context, params, query, body }) =>
  takeSheetFile(context, params.id, body, {
    impression: query.impression,
    modeTold: query.modeTold === 'true',
  }),
);
