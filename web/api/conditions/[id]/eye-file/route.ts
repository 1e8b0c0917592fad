import { eyeFile } from '@melto/services/eye/eyePage';
import { EYE_FILE } from '@/endpoints/eye';
import { handingOut } from '@/server/route';

export const GET = handingOut(EYE_FILE, ({ context, params, query: { listId, paper } }) =>
  eyeFile(context, params.id, listId, paper ?? 'a4'),
);
