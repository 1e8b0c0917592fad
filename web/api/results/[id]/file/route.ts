import { resultFile } from '@melto/services/ledger/versions';
import { RESULT_FILE } from '@/endpoints/profile';
import { handingOut } from '@/server/route';

export const GET = handingOut(RESULT_FILE, ({ context, params, query }) =>
  resultFile(context, params.id, query.role ?? 'profile'),
);
