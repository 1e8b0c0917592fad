import { createHash } from 'node:crypto';
import { mkdir, readdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { composeServices } from '@melto/services/composition';
import { openFiles } from '@melto/services/overview/openFiles';

// Entry of `./melto house leave FOLDER`: writes all that the house has found out as open files into an empty folder.
const url = process.env['MELTO_DATABASE_URL'];
if (url === undefined) throw new Error('MELTO_DATABASE_URL is not set');
const [, folder, ...more] = process.argv.slice(2);
if (folder === undefined || more.length > 0) {
  console.error('melto house: Say which folder. ./melto house leave FOLDER');
  process.exit(2);
}
if ((await readdir(folder).catch(() => [])).length > 0) {
  console.error(`melto house: ${folder} is not empty. Nothing was written. Give another name.`);
  process.exit(1);
}
const context = composeServices(url);
try {
  const sums: string[] = [];
  for await (const { path, content } of openFiles(context)) {
    const file = join(folder, path);
    await mkdir(dirname(file), { recursive: true });
    // Each name is given once; a file that is there already is not written over.
    await writeFile(file, content, { flag: 'wx' });
    sums.push(`${createHash('sha256').update(content).digest('hex')}  ${path}`);
  }
  await writeFile(join(folder, 'checksums.txt'), `${sums.join('\n')}\n`, { flag: 'wx' });
  console.log(`${folder}: ${sums.length} files.`);
} finally {
  await context.database.close();
}
