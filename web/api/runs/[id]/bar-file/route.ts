import { barFile } from '@melto/services/press/barFile';
import { BAR_PDF } from '@/endpoints/runs';
import { handingOut } from '@/server/route';

export const GET = handingOut(BAR_PDF, ({ context, params }) => barFile(context, params.id));
