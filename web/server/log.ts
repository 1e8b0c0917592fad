import { pino } from 'pino';

/** What the server has to say, as one line of JSON each: to standard output, which systemd or the start keeps. */
export const log = pino({ name: 'melto-web', level: process.env['MELTO_LOG'] ?? 'info' });
