import { sheetsOf } from '@melto/services/charts/rack';
import { SHEETS } from '@/endpoints/charts';
import { answering } from '@/server/route';

export const GET = answering(SHEETS, ({ context, params, query }) => sheetsOf(context, params.id, query));
