import { actsFile } from '@melto/services/people/acts';
import { ACTS_FILE } from '@/endpoints/people';
import { handingOut } from '@/server/route';

export const GET = handingOut(ACTS_FILE, ({ context, query }) => actsFile(context, query.find));
