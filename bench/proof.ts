import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { RENDERING_INTENTS } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { bakeProof, drawProof } from '@melto/core/proof/bakedProof';
import { exactPicture } from '@melto/core/proof/exactPicture';
import { SAMPLE_PICTURES, samplePicture } from '@melto/core/proof/samplePicture';
import { PROOF_COLUMNS, proofRows, softProof } from '@melto/core/proof/softProof';
import type { SoftProof } from '@melto/core/proof/softProof';
import { unwrap } from '@melto/core/result';
import { deviceTiff } from '@melto/core/picture/deviceTiff';
import { proofPicture } from '@melto/paper/proofPicture';
import { printTable } from './table.ts';

const SIDE = 1000;
const SRGB = '/usr/share/color/icc/sRGB.icc';

/**
 * Device values of pictures beside those of LittleCMS, the baked proof beside the exact one, and their speed.
 * PROFILES names output profiles, parted by commas.
 */
export async function proof(): Promise<void> {
  const profiles = (process.env.PROFILES ?? '').split(',').filter((path) => path !== '');
  if (profiles.length === 0) {
    console.log('proof: name output profiles in PROFILES, parted by commas');
    return;
  }
  const folder = mkdtempSync(join(tmpdir(), 'melto-proof-'));
  const rows: string[][] = [];
  const speeds: string[][] = [];
  for (const path of profiles) {
    const device = unwrap(readIcc(readFileSync(path)));
    const source = unwrap(readIcc(readFileSync(SRGB)));
    for (const name of SAMPLE_PICTURES) {
      const pixels = samplePicture(name, SIDE, SIDE);
      writeFileSync(
        join(folder, 'in.tif'),
        deviceTiff(pixels, { width: SIDE, height: SIDE, channels: 3 }, 300),
      );
      for (const intent of RENDERING_INTENTS)
        for (const blackPoint of intent === 'absolute' ? [false] : [false, true]) {
          const made = unwrap(
            softProof(source, device, { intent, blackPoint, paperWhite: true, inkBlack: true }),
          );
          const own = deviceValues(made, pixels);
          const options = [
            ...['-c0', `-t${RENDERING_INTENTS.indexOf(intent)}`, ...(blackPoint ? ['-b'] : [])],
            ...[`-i${SRGB}`, `-o${path}`, join(folder, 'in.tif'), join(folder, 'out.tif')],
          ];
          execFileSync('tificc', options, { stdio: 'ignore' });
          const { values } = unwrap(await proofPicture(readFileSync(join(folder, 'out.tif')), Infinity));
          rows.push([
            `${path.replace(/^.*\//, '')}, ${name}`,
            `${intent}${blackPoint ? ' with black point' : ''}`,
            ...apart(own, values),
            ...apartBaked(made, pixels),
          ]);
        }
    }
    speeds.push([
      path.replace(/^.*\//, ''),
      ...speedOf(
        unwrap(
          softProof(source, device, {
            intent: 'relative',
            blackPoint: true,
            paperWhite: true,
            inkBlack: true,
          }),
        ),
      ),
    ]);
  }
  rmSync(folder, { recursive: true });
  printTable(
    'Pictures of 1 megapixel, levels of 8 bits: device values beside LittleCMS, screen of the baked proof beside the exact one',
    ['device, picture', 'intent', 'mean', 'largest', 'baked, mean', 'largest'],
    rows,
  );
  printTable('Million pixels a second, one thread', ['device', 'bake, ms', 'baked', 'exact, screen'], speeds);
}

function deviceValues(made: SoftProof, pixels: Uint8Array): Uint8Array {
  const rows = exactPicture(pixels, 3, made.inks, (values) => {
    const out = new Float64Array((values.length / 3) * made.inks);
    made.toDevice.apply(values, out);
    return out;
  });
  return Uint8Array.from(rows, (value) => Math.round(255 * value));
}

function apart(a: ArrayLike<number>, b: ArrayLike<number>): [string, string] {
  let sum = 0;
  let largest = 0;
  for (let i = 0; i < a.length; i++) {
    const off = Math.abs(a[i] - b[i]);
    sum += off;
    largest = Math.max(largest, off);
  }
  return [(sum / a.length).toFixed(4), largest.toFixed(0)];
}

function apartBaked(made: SoftProof, pixels: Uint8Array): [string, string] {
  const out = new Uint8ClampedArray((pixels.length / 3) * 4);
  drawProof(
    bakeProof(3, (values) => proofRows(made, values)),
    pixels,
    out,
  );
  const exact = exactPicture(pixels, 3, PROOF_COLUMNS, (values) => proofRows(made, values));
  const drawn: number[] = [];
  const wanted: number[] = [];
  for (let i = 0; i < pixels.length / 3; i++)
    for (let c = 0; c < 3; c++) {
      drawn.push(out[4 * i + c]);
      wanted.push(Math.round(255 * exact[PROOF_COLUMNS * i + c]));
    }
  return apart(drawn, wanted);
}

function speedOf(made: SoftProof): string[] {
  const [width, height] = [4000, 3000];
  const pixels = samplePicture('Seed catalogue', width, height);
  const out = new Uint8ClampedArray(4 * width * height);
  const timed = (work: () => void): number => {
    const started = performance.now();
    work();
    return performance.now() - started;
  };
  let baked = bakeProof(3, (values) => proofRows(made, values));
  const bakeMs = timed(() => (baked = bakeProof(3, (values) => proofRows(made, values))));
  const drawMs = timed(() => drawProof(baked, pixels, out));
  const exactMs = timed(() =>
    exactPicture(pixels, 3, 3, (values) => {
      const device = new Float64Array((values.length / 3) * made.inks);
      made.toDevice.apply(values, device);
      const shown = new Float64Array(values.length);
      made.shown.apply(device, shown);
      return shown;
    }),
  );
  const speed = (ms: number): string => ((width * height) / ms / 1000).toFixed(1);
  return [bakeMs.toFixed(0), speed(drawMs), speed(exactMs)];
}
