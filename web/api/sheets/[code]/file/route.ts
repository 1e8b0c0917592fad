import { printFile } from '@melto/services/charts/chartPages';
import { SHEET_FILE } from '@/endpoints/charts';
import { handingOut } from '@/server/route';

export const GET = handingOut(SHEET_FILE, ({ context, params, query: { format = 'pdf', asked } }) =>
  printFile(context, params.code, format, asked === 1),
);
