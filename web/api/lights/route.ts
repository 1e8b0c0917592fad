import { takeLights, viewingLights } from '@melto/services/light/viewingLights';
import { LIGHTS, TAKE_LIGHTS } from '@/endpoints/light';
import { answering, changing } from '@/server/route';

export const GET = answering(LIGHTS, ({ context }) => viewingLights(context));

export const POST = changing(TAKE_LIGHTS, ({ context, query, body }) =>
  takeLights(context, query.name, body),
);
