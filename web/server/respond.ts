import { randomUUID } from 'node:crypto';
import type { Download } from '@melto/services/kernel/download';
import { log } from './log';
import { databaseTrouble } from '@melto/services/kernel/databaseTrouble';
import { Problem, PROBLEM_STATUS } from '@melto/services/kernel/problem';

const TROUBLE = {
  lost: ['The database does not answer.', 'Nothing was changed. Try again in a moment.'],
  unknown: [
    'The database was lost while it kept this.',
    'Whether it was kept is not known. Send the same again: it is kept once.',
  ],
} as const;

/** What is thrown as a response (RFC 9457); what is no refusal stands in the log under the number that is given out. */
export function problemResponse(
  error: unknown,
  asked: { readonly method?: string; readonly path?: string } = {},
): Response {
  const refused = error instanceof Problem;
  const trouble = databaseTrouble(error);
  const number = refused ? undefined : randomUUID().slice(0, 8);
  const problem = refused
    ? {
        type: `/problems/${error.type}`,
        title: error.title,
        status: PROBLEM_STATUS[error.type] as number,
        detail: error.detail,
        field: error.field,
      }
    : trouble !== undefined
      ? {
          type: '/problems/no-database',
          title: TROUBLE[trouble][0],
          status: 503,
          detail: TROUBLE[trouble][1],
        }
      : {
          type: '/problems/internal',
          title: 'Melto has made a mistake.',
          status: 500,
          detail: `Nothing was changed. Try again; the log of the server tells more under ${number ?? ''}.`,
        };
  if (!refused)
    log.error({ number, ...asked, err: error }, trouble === undefined ? 'a mistake of ours' : 'no database');
  return new Response(JSON.stringify(problem), {
    status: problem.status,
    headers: { 'content-type': 'application/problem+json', ...SAFE },
  });
}

const SAFE = { 'x-content-type-options': 'nosniff', 'cache-control': 'no-store' };

export function jsonResponse(value: unknown, status = 200): Response {
  // Nothing to tell is an empty object; null is an answer of its own.
  return Response.json(value === undefined ? {} : value, { status, headers: SAFE });
}

/** A file; one that is shown in place may not run or load anything but the pictures that it holds itself. */
export function fileResponse({ name, mediaType, content }: Download, inline = false): Response {
  const safe = name.replace(/[^A-Za-z0-9._-]/g, '_');
  return new Response(new Uint8Array(content), {
    headers: {
      ...SAFE,
      'content-type': mediaType,
      'content-disposition': `${inline ? 'inline' : 'attachment'}; filename="${safe}"`,
      'content-security-policy':
        "default-src 'none'; img-src data:; style-src 'unsafe-inline'; frame-ancestors 'none'; sandbox",
    },
  });
}
