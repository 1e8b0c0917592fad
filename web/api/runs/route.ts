import { createRun, runs } from '@melto/services/press/runs';
import { CREATE_RUN, RUNS } from '@/endpoints/runs';
import { answering, changing } from '@/server/route';

export const GET = answering(RUNS, ({ context, query }) => runs(context, query));

export const POST = changing(CREATE_RUN, ({ context, body }) => createRun(context, body));
