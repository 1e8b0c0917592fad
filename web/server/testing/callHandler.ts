import { join } from 'node:path';
import type { Endpoint } from '@/endpoints/endpoint';

const ROOT = join(import.meta.dirname, '../../app/api');

type Handler = (
  request: Request,
  context: { params: Promise<Record<string, string>> },
) => Response | Promise<Response>;

export interface GivenToHandler {
  /** In the place of each parameter of the address. */
  readonly id?: string;
  readonly body?: string;
  readonly query?: string;
  readonly headers?: Readonly<Record<string, string>>;
}

/** File of a route. */
export function routeFile(path: string): string {
  const folders = path
    .replace(/^\/api\//, '')
    .replaceAll('{', '[')
    .replaceAll('}', ']');
  return join(ROOT, folders, 'route.ts');
}

/** Calls the handler of an endpoint as Next would, from this server's own page where nothing else is given. */
export async function callHandler(
  { method, path }: Pick<Endpoint, 'method' | 'path'>,
  { id = '1', body, query = '', headers }: GivenToHandler = {},
): Promise<Response> {
  const { [method]: handler } = (await import(routeFile(path))) as Record<string, Handler>;
  const params = Object.fromEntries([...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => [name, id]));
  const request = new Request(`http://127.0.0.1:3400${path.replace(/\{\w+\}/, id)}${query}`, {
    method,
    headers: { host: '127.0.0.1:3400', 'content-type': 'application/json', ...headers },
    ...(body === undefined ? {} : { body }),
  });
  return handler(request, { params: Promise.resolve(params) });
}
