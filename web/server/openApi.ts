import { ENDPOINTS } from '@/endpoints/all';
import type { Endpoint } from '@/endpoints/endpoint';

const PROBLEM_SCHEMA = {
  type: 'object',
  required: ['type', 'title', 'status', 'detail'],
  properties: {
    type: { type: 'string', description: 'Kind of the refusal, the same for good' },
    title: { type: 'string', description: 'What happened' },
    status: { type: 'integer' },
    detail: { type: 'string', description: 'What to do' },
    field: { type: 'string', description: 'The field that is at fault' },
  },
};

const PROBLEM = {
  description: 'A refusal in words (RFC 9457)',
  content: { 'application/problem+json': { schema: PROBLEM_SCHEMA } },
};

const KEY = {
  name: 'idempotency-key',
  in: 'header',
  required: false,
  description: 'Makes a change that is sent again the same change: new for each change, kept on a retry',
  schema: { type: 'string', maxLength: 80 },
};

/** The API as OpenAPI 3.1, from the endpoints themselves. */
export function openApi(): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const endpoint of ENDPOINTS)
    paths[endpoint.path] = {
      ...paths[endpoint.path],
      [endpoint.method.toLowerCase()]: operation(endpoint),
    };
  return { openapi: '3.1.0', info: { title: 'Melto', version: '0.1.0' }, paths };
}

function operation({ says, who, method, params, query, body, answer }: Endpoint): Record<string, unknown> {
  const fields = (schema: typeof params, place: 'path' | 'query'): Record<string, unknown>[] =>
    Object.entries(schema.properties).map(([name, field]) => ({
      name,
      in: place,
      required: place === 'path' || (schema.required ?? []).includes(name),
      schema: field,
    }));
  return {
    summary: says,
    description: `For the role ${who} and those above it.`,
    parameters: [...fields(params, 'path'), ...fields(query, 'query'), ...(method === 'GET' ? [] : [KEY])],
    ...(body === undefined ? {} : { requestBody: { required: true, content: contentOf(body) } }),
    responses: {
      200: {
        description: 'Done',
        content:
          answer === undefined
            ? { '*/*': { schema: { type: 'string', format: 'binary' } } }
            : { 'application/json': { schema: answer } },
      },
      default: PROBLEM,
    },
  };
}

function contentOf(body: NonNullable<Endpoint['body']>): Record<string, unknown> {
  return 'file' in body
    ? {
        'application/octet-stream': {
          schema: { type: 'string', format: 'binary', maxLength: body.mostBytes },
        },
      }
    : { 'application/json': { schema: body } };
}
