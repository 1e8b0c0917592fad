import { changeSettings } from '@melto/services/press/atThePress';
import { CHANGE_RUN_SETTINGS } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const PUT = changing(CHANGE_RUN_SETTINGS, async ({ context, params, body }) => {
  await changeSettings(context, params.id, body);
  return {};
});
