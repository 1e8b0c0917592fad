import { openApi } from '@/server/openApi';
import { jsonResponse } from '@/server/respond';

export function GET(): Response {
  return jsonResponse(openApi());
}
