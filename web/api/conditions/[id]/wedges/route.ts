import { printWedge } from '@melto/services/wedges/printWedge';
import { PRINT_WEDGE } from '@/endpoints/charts';
import { changing } from '@/server/route';

export const POST = changing(
  PRINT_WEDGE,
  ({ context, params, body: { ticks, conversion, side, frontEnd, told, ...wedge } }) =>
    printWedge(context, params.id, wedge, { ticks, conversion, side, frontEnd, told }),
);
