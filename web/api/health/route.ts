import { health } from '@melto/services/house/health';
import { context } from '@/server/context';
import { jsonResponse } from '@/server/respond';

/** Not through an endpoint's handler: it tells how things are even where they are not well. */
export async function GET(): Promise<Response> {
  const state = await health(context(), Date.now());
  return jsonResponse(state, state.ok ? 200 : 503);
}
