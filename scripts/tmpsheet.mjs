// node tmpsheet.mjs out.png a.png b.png c.png d.png
import { createRequire } from 'node:module';
const require = createRequire(import.meta.url);
const sharp = require('sharp');
const [out, ...files] = process.argv.slice(2);
await sharp({ create: { width: 2560, height: (+process.env.H || 800) * Math.ceil(files.length / 2), channels: 3, background: '#fff' } })
  .composite(files.map((input, k) => ({ input, left: (k % 2) * 1280, top: Math.floor(k / 2) * (+process.env.H || 800) })))
  .png().toFile(out);
