import { takeSheet } from '@melto/services/press/sheets';
import { TAKE_SHEET } from '@/endpoints/runs';
import { changing } from '@/server/route';

export const POST = changing(TAKE_SHEET, ({ context, params, body }) => takeSheet(context, params.id, body));
