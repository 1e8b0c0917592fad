import { describe, expect, it } from 'vitest';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { RGB } from '@melto/core/device/process';
import { unwrap } from '@melto/core/result';
import { trialFigures } from '@melto/core/stock/trialFigures';
import type { TrialFigures } from '@melto/core/stock/trialFigures';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';

const { device } = makeRgbChart(200, 4);
const on = (stock: Parameters<typeof wrenTruthXyz>[0]): TrialFigures =>
  unwrap(trialFigures(RGB, device, wrenTruthXyz(stock, 'fine', device)));

describe('what a chart tells of its stock', () => {
  const [gloss, rag] = [on('quay-proof-200'), on('chalk-rag-310')];

  it('is darker and wider on a coated stock than on a cotton one, and keeps more of pictures', () => {
    expect(gloss.density).toBeGreaterThan(rag.density + 0.2);
    expect(gloss.darkest[0]).toBeLessThan(rag.darkest[0]);
    expect(gloss.volume).toBeGreaterThan(1.1 * rag.volume);
    gloss.pictures.forEach(({ name, lost }, i) => {
      expect(rag.pictures[i].name).toBe(name);
      expect(lost).toBeLessThan(rag.pictures[i].lost + 0.1);
      expect(lost).toBeGreaterThanOrEqual(0);
    });
    // The vivid one loses more than the neutral one, and less on the wider stock.
    expect(gloss.pictures[0].lost).toBeGreaterThan(gloss.pictures[2].lost);
    expect(gloss.pictures[0].lost).toBeLessThan(rag.pictures[0].lost - 0.3);
  });

  it('has the white of the bare stock, and no noise where the truth is read', () => {
    expect(gloss.white[0]).toBeGreaterThan(90);
    expect(Math.hypot(gloss.white[1], gloss.white[2])).toBeLessThan(6);
    expect(gloss.noise ?? 0).toBeLessThan(1e-9);
    expect(gloss.greys).toBeGreaterThan(0);
    expect(gloss.greys).toBeLessThan(12);
  });

  it('tells the noise of patches that are there twice', () => {
    const twice = Float64Array.from([...device, ...device]);
    const xyz = wrenTruthXyz('quay-proof-200', 'fine', device);
    const shaken = xyz.map((value, i) => value * (i % 2 === 0 ? 1.01 : 0.99));
    const { noise } = unwrap(trialFigures(RGB, twice, Float64Array.from([...xyz, ...shaken])));
    expect(noise).toBeGreaterThan(0.2);
  });

  it('is refused without a patch of the bare stock', () => {
    const inked = device.map((value) => Math.min(value, 0.9));
    const made = trialFigures(RGB, inked, wrenTruthXyz('quay-proof-200', 'fine', inked));
    expect(made.ok ? '' : made.issues[0].expected).toBe('a patch of the bare stock');
  });
});
