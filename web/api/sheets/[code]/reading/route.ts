import { importReading } from '@melto/services/reading/importReading';
import { IMPORT_READING } from '@/endpoints/reading';
import { judged } from '@/server/judged';
import { answersOf } from '@/server/measuredAnswers';
import { changing } from '@/server/route';

export const POST = changing(
  IMPORT_READING,
  ({ context, params, query, body }) => importReading(context, params.code, body, answersOf(query)),
  judged,
);
