import { printJobCheck } from '@melto/services/conformity/jobCheck';
import { PRINT_JOB_CHECK } from '@/endpoints/charts';
import { changing } from '@/server/route';

export const POST = changing(PRINT_JOB_CHECK, ({ context, params, body }) =>
  printJobCheck(context, params.id, body),
);
