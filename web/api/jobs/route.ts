import { recentJobs } from '@melto/services/kernel/jobs';
import { JOBS } from '@/endpoints/house';
import { answering } from '@/server/route';

export const GET = answering(JOBS, ({ context }) => recentJobs(context));
