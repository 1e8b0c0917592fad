import { ENDPOINTS } from '@/server/endpoints';
import { SCHEMAS } from '@/server/schemas';

const PROBLEM = {
  description: 'A problem (RFC 9457)',
  content: { 'application/problem+json': { schema: { type: 'object' } } },
};

export function GET(): Response {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const { method, path, says, body } of ENDPOINTS) {
    const parameters = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
      name,
      in: 'path',
      required: true,
      schema: { type: 'string' },
    }));
    paths[path] = {
      ...paths[path],
      [method]: {
        summary: says,
        parameters,
        ...(body === undefined
          ? {}
          : { requestBody: { required: true, content: { 'application/json': { schema: SCHEMAS[body] } } } }),
        responses: { 200: { description: 'Done' }, default: PROBLEM },
      },
    };
  }
  return Response.json({ openapi: '3.1.0', info: { title: 'Melto', version: '0.1.0' }, paths });
}
