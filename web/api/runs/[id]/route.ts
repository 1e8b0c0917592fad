import { runView } from '@melto/services/press/runView';
import { RUN } from '@/endpoints/runs';
import { answering } from '@/server/route';

export const GET = answering(RUN, ({ context, params }) => runView(context, params.id));
