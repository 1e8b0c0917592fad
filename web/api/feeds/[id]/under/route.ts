import { underSensor } from '@melto/services/simulated/pressHand';
import { FEED_UNDER } from '@/endpoints/runs';
import { answering } from '@/server/route';

export const GET = answering(FEED_UNDER, ({ context, params }) => underSensor(context, params.id));
