import { melto } from './melto.ts';

process.exitCode = await melto(process.argv.slice(2));
