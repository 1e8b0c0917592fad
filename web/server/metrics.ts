import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { health } from '@melto/services/house/health';
import { context } from './context';
import { roomLeft } from './room';

interface Metrics {
  readonly registry: Registry;
  readonly requests: Histogram<'method' | 'route' | 'status'>;
  readonly up: Gauge<'part'>;
  readonly room: Gauge;
}

declare global {
  var meltoMetrics: Metrics | undefined;
}

/** Seconds that requests are counted by. */
const BUCKETS = [0.005, 0.02, 0.05, 0.15, 0.5, 1, 3, 10, 30];

/** The figures of this web process, made on first use. */
function metrics(): Metrics {
  if (globalThis.meltoMetrics !== undefined) return globalThis.meltoMetrics;
  const registry = new Registry();
  collectDefaultMetrics({ register: registry, prefix: 'melto_' });
  globalThis.meltoMetrics = {
    registry,
    requests: new Histogram({
      name: 'melto_request_seconds',
      help: 'Requests by route and status',
      labelNames: ['method', 'route', 'status'],
      buckets: BUCKETS,
      registers: [registry],
    }),
    up: new Gauge({
      name: 'melto_up',
      help: 'Whether a part answers: database, runner',
      labelNames: ['part'],
      registers: [registry],
    }),
    room: new Gauge({
      name: 'melto_database_room_megabytes',
      help: 'Free space of the disk of the database, where that is on this machine',
      registers: [registry],
    }),
  };
  return globalThis.meltoMetrics;
}

/** Counts a request by the route of its endpoint, whose names are few: an address could be anything. */
export function countRequest(method: string, route: string, status: number, seconds: number): void {
  metrics().requests.observe({ method, route, status: String(status) }, seconds);
}

/** All figures in the text form of Prometheus. */
export async function metricsText(): Promise<{ readonly mediaType: string; readonly text: string }> {
  const { registry, up, room } = metrics();
  const [state, left] = await Promise.all([health(context(), Date.now()), roomLeft()]);
  up.set({ part: 'database' }, state.database ? 1 : 0);
  up.set({ part: 'runner' }, state.runner ? 1 : 0);
  if (left !== undefined) room.set(left);
  return { mediaType: registry.contentType, text: await registry.metrics() };
}
