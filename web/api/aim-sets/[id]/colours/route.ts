import { aimColours } from '@melto/services/conformity/aimSetDetail';
import { AIM_COLOURS } from '@/endpoints/conformity';
import { answering } from '@/server/route';

export const GET = answering(AIM_COLOURS, ({ context, params }) => aimColours(context, params.id));
