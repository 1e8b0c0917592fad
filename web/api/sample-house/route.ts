import { requestSampleHouse } from '@melto/services/simulated/sampleHouse';
import { LOAD_SAMPLE } from '@/endpoints/house';
import { changing } from '@/server/route';

export const POST = changing(LOAD_SAMPLE, ({ context }) => requestSampleHouse(context));
