import { CMYK, RGB } from '../device/process.ts';
import { describe, expect, it } from 'vitest';
import { genericLabRows } from '../charts/expectedColours.ts';
import { layoutChart } from '../charts/layoutChart.ts';
import { makeRampChart } from '../charts/rampChart.ts';
import { makeRgbChart } from '../charts/rgbChart.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { detectFaults } from './detectFaults.ts';
import type { SheetReading } from './detectFaults.ts';
import { FAULT_WORDS } from './fault.ts';
import { matchStrip } from './matchStrip.ts';

const { device } = makeRgbChart(200, 1);
const strips = layoutChart(RGB, device, 'a4', 1).pages.flat();

/** A device of its own: a raw response with casts, far from any colorimetric conversion. */
function rawLab(): Float64Array {
  const lab = genericLabRows(RGB, device, 3);
  for (let i = 0; i < lab.length; i += 3) {
    const [r, g, b] = [device[i], device[i + 1], device[i + 2]];
    lab[i + 1] += 14 * Math.sin(3 * g) * (1 - b) + 6 * (1 - r);
    lab[i + 2] += 16 * Math.sin(3 * b) * (1 - r) - 5 * (1 - g);
  }
  return lab;
}

function sheet(lab: Float64Array, changes: Partial<SheetReading> = {}): SheetReading {
  return {
    process: RGB,
    device,
    xyz: lab,
    lab,
    density: new Float64Array(lab.length / 3).fill(1.9),
    strips,
    finish: 'semi-matt',
    ...changes,
  };
}

const kinds = (reading: SheetReading): string[] => detectFaults(reading).map(({ kind }) => kind);

describe('faults of a sheet', () => {
  it('finds none on a sound sheet', () => expect(kinds(sheet(rawLab()))).toEqual([]));

  it('sees a colorimetric conversion by its small rest and its neutral greys', () => {
    const found = detectFaults(sheet(genericLabRows(RGB, device, 3)));
    expect(found.map(({ kind }) => kind)).toEqual(['colour-management-on']);
    expect(found[0].figures.residual).toBeLessThan(3);
  });

  it('sees the wrong side by Dmax, against the finish or the stock itself', () => {
    const density = new Float64Array(device.length / 3).fill(1.1);
    expect(kinds(sheet(rawLab(), { density }))).toEqual(['wrong-side']);
    expect(kinds(sheet(rawLab(), { density, usualDmax: 1.2 }))).toEqual([]);
    // Four fifths of the usual one: 1.75 on a semi-matt stock, or what the stock gave before.
    const of = (dmax: number): Float64Array => new Float64Array(device.length / 3).fill(dmax);
    expect(kinds(sheet(rawLab(), { density: of(1.401) }))).toEqual([]);
    expect(kinds(sheet(rawLab(), { density: of(1.399) }))).toEqual(['wrong-side']);
    expect(kinds(sheet(rawLab(), { density: of(1.601), usualDmax: 2 }))).toEqual([]);
    expect(kinds(sheet(rawLab(), { density: of(1.599), usualDmax: 2 }))).toEqual(['wrong-side']);
  });

  it('names swapped and reversed strips, and judges the rest without them', () => {
    const swapped = rawLab();
    const reversed = rawLab();
    const source = rawLab();
    const [a, b] = [0, strips.findIndex((rows, i) => i > 0 && rows.length === strips[0].length)];
    strips[a].forEach((row, i) => {
      swapped.set(source.subarray(3 * strips[b][i], 3 * strips[b][i] + 3), 3 * row);
      swapped.set(source.subarray(3 * row, 3 * row + 3), 3 * strips[b][i]);
      const mirror = strips[a][strips[a].length - 1 - i];
      reversed.set(source.subarray(3 * mirror, 3 * mirror + 3), 3 * row);
    });
    const found = detectFaults(sheet(swapped));
    expect(found.map(({ kind }) => kind)).toEqual(['strips-swapped']);
    expect(found[0].strips).toEqual([a + 1, b + 1]);
    expect(detectFaults(sheet(reversed))).toMatchObject([{ kind: 'strip-backwards', strips: [1] }]);
  });

  it('names the strip where a copy of a patch was read wrong', () => {
    const lab = rawLab();
    const copy = device.length / 3 - 1; // the last patches are repeats
    lab[3 * copy] += 7;
    const found = detectFaults(sheet(lab));
    expect(found.map(({ kind }) => kind)).toEqual(['outlier-patches']);
    expect(found[0].strips).toContain(strips.findIndex((rows) => rows.includes(copy)) + 1);
    // Even odds where it is nothing, sure where it is large: 10 ΔE00 are certainty itself, held at 0.95.
    const { deltaE } = found[0].figures;
    expect(found[0].confidence).toBeCloseTo(0.5 + deltaE / 20, 12);
    lab[3 * copy] += 15;
    expect(detectFaults(sheet(lab))[0].confidence).toBe(0.95);
  });

  it('does not take a dark blue for paper', () => {
    const lab = rawLab();
    for (let i = 0; i < lab.length; i += 3)
      if (device[i] + device[i + 1] + device[i + 2] === 3) lab.set([40, 5, -30], i);
    expect(kinds(sheet(lab))).toContain('paper-unlikely');
  });

  it('knows a conversion by its greys as well, those of middle lightness', () => {
    const converted = genericLabRows(RGB, device, 3);
    const cast = (from: number, to: number): Float64Array => {
      const lab = converted.slice();
      for (let i = 0; i < lab.length; i += 3)
        if (device[i] === device[i + 1] && device[i] === device[i + 2] && lab[i] > from && lab[i] < to)
          lab[i + 1] += 9;
      return lab;
    };
    expect(kinds(sheet(cast(31, 84)))).toEqual([]);
    // Paper and black have a tint of their own.
    expect(kinds(sheet(cast(86, 99)))).toEqual(['colour-management-on']);
    expect(kinds(sheet(cast(0, 29)))).toEqual(['colour-management-on']);
  });

  it('takes a light black beside a conversion for part of it, alone for the wrong side', () => {
    const ramps = makeRampChart(CMYK, { steps: 21, totalInk: false });
    /** The ramps as a generic press prints them; a conversion puts other inks into each of them. */
    const read = (converted: boolean): SheetReading => {
      const sent = ramps.device.slice();
      for (let i = 0; converted && i < sent.length; i += 4) {
        const [c, m, y, k] = sent.subarray(i, i + 4);
        const part = 0.25 * k * (1 - k);
        sent.set([c + 0.3 * m * (1 - m) + part, m + 0.3 * c * (1 - c) + part, y + part, 0.8 * k], i);
      }
      const lab = genericLabRows(CMYK, sent, 4);
      const xyz = new Float64Array(lab.length);
      for (let i = 0; i < lab.length; i += 3)
        xyz.set(labToXyz([...lab.subarray(i, i + 3)] as unknown as Lab, WHITE_D50_MEASURED), i);
      const density = new Float64Array(lab.length / 3).fill(1);
      return { process: CMYK, device: ramps.device, xyz, lab, density, strips: [], finish: 'semi-matt' };
    };
    expect(kinds(read(true))).toEqual(['colour-management-on']);
    // A generic press is even without curves, which is told as well.
    expect(kinds(read(false))).toEqual(['wrong-side', 'curves-on']);
  });

  it('has words for every kind', () => {
    for (const words of Object.values(FAULT_WORDS))
      expect(words.says.length * words.todo.length).toBeGreaterThan(0);
  });
});

describe('strip match', () => {
  const strip = Float64Array.from({ length: 30 }, (_, i) => (i * 37) % 90);
  const other = Float64Array.from({ length: 30 }, (_, i) => (i * 53 + 11) % 90);

  it('keeps the strip that was asked for unless another fits far better', () => {
    expect(matchStrip(strip, [strip, other], 0)).toMatchObject({ strip: 0, reversed: false });
    expect(matchStrip(other, [strip, other], 0)).toMatchObject({ strip: 1, reversed: false });
    expect(matchStrip(new Float64Array(30).fill(50), [strip, other], 0)).toMatchObject({
      strip: 0,
      score: 0,
    });
  });
});
