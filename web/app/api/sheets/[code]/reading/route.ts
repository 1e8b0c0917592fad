import { importReading } from '@melto/services/reading/importReading';
import { IMPORT_READING } from '@/endpoints/reading';
import { judged } from '@/server/judged';
import { changing } from '@/server/route';

export const dynamic = 'force-dynamic';

export const POST = changing(
  IMPORT_READING,
  ({ context, params, body }) => importReading(context, params.code, Buffer.from(body).toString('utf8')),
  judged,
);
