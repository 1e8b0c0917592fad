import { importCurves } from '@melto/services/calibration/curves';
import { fileText } from '@melto/services/kernel/fileText';
import { IMPORT_CURVES } from '@/endpoints/calibration';
import { changing } from '@/server/route';

export const POST = changing(IMPORT_CURVES, ({ context, params, query, body }) =>
  importCurves(context, params.id, query.name ?? 'curves.csv', fileText(body)),
);
