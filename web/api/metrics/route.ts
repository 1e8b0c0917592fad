import { METRICS } from '@/endpoints/house';
import { metricsText } from '@/server/metrics';
import { handingOut } from '@/server/route';

export const GET = handingOut(METRICS, async () => {
  const { mediaType, text } = await metricsText();
  return { name: 'metrics.txt', mediaType, content: new TextEncoder().encode(text) };
});
