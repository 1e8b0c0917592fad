import { aimSetFile } from '@melto/services/conformity/aimSetDetail';
import { AIM_SET_FILE } from '@/endpoints/conformity';
import { handingOut } from '@/server/route';

export const GET = handingOut(AIM_SET_FILE, ({ context, params }) => aimSetFile(context, params.id));
