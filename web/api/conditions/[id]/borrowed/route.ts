import { borrowCalibration } from '@melto/services/calibration/borrowing';
import { BORROW } from '@/endpoints/conditions';
import { changing } from '@/server/route';

export const PUT = changing(BORROW, ({ context, params, body }) =>
  borrowCalibration(context, params.id, body.conditionId),
);
