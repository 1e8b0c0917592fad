import { printShortCheck } from '@melto/services/conformity/shortChecks';
import { PRINT_SHORT_CHECK } from '@/endpoints/charts';
import { changing } from '@/server/route';

export const POST = changing(PRINT_SHORT_CHECK, ({ context, params, body: { profileResultId, ...print } }) =>
  printShortCheck(context, params.id, profileResultId, print),
);
