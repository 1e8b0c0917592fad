import { sheetBrightener } from '@melto/services/profile/ultraviolet';
import { SHEET_BRIGHTENER } from '@/endpoints/light';
import { answering } from '@/server/route';

export const GET = answering(SHEET_BRIGHTENER, ({ context, params }) => sheetBrightener(context, params.id));
