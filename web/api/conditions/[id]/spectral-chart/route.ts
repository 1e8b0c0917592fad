import { spectralChart } from '@melto/services/lists/spectralChart';
import { SPECTRAL_CHART } from '@/endpoints/lists';
import { answering } from '@/server/route';

export const GET = answering(SPECTRAL_CHART, ({ context, params }) => spectralChart(context, params.id));
