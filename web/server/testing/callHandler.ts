import { ROUTES } from '@/api/routes';
import type { Endpoint } from '@/endpoints/endpoint';
import { dispatcherOf } from '../dispatch';

const dispatch = dispatcherOf(ROUTES);

export interface GivenToHandler {
  /** In the place of each parameter of the address. */
  readonly id?: string;
  readonly body?: string;
  readonly query?: string;
  readonly headers?: Readonly<Record<string, string>>;
}

/** Asks at the address of an endpoint as Next would, from this server's own page where nothing else is given. */
export async function callHandler(
  { method, path }: Pick<Endpoint, 'method' | 'path'>,
  { id = '1', body, query = '', headers }: GivenToHandler = {},
): Promise<Response> {
  const address = path.replaceAll(/\{\w+\}/g, encodeURIComponent(id));
  const request = new Request(`http://127.0.0.1:3400${address}${query}`, {
    method,
    headers: { host: '127.0.0.1:3400', 'content-type': 'application/json', ...headers },
    ...(body === undefined ? {} : { body }),
  });
  const words = path.replace('/api/', '').split('/');
  return dispatch(request, {
    params: Promise.resolve({ path: words.map((word) => (word.startsWith('{') ? id : word)) }),
  });
}
