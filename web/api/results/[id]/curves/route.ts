import { exportCurves } from '@melto/services/calibration/curveExport';
import { CURVES_FILE } from '@/endpoints/calibration';
import { handingOut } from '@/server/route';

export const GET = handingOut(
  CURVES_FILE,
  ({ context, params: { id }, query: { format = 'csv', points = 256, channels = '' } }) =>
    exportCurves(
      context,
      id,
      format,
      points,
      [...channels].filter((channel) => channel !== ','),
    ),
);
