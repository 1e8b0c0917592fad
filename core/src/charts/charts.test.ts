import { RGB } from '../device/process.ts';
import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import { genericLab } from './expectedColours.ts';
import { genericPressLab } from './genericPress.ts';
import { makeNearNeutralChart, NEUTRAL_STEPS } from './nearNeutralChart.ts';
import { greyMagentaYellow } from '../balance/greyTriplet.ts';
import { layoutColumns, layoutFromColumns } from './layoutColumns.ts';
import { layoutChart, NEIGHBOUR_DELTA_E } from './layoutChart.ts';
import {
  pageCapacity,
  paperMm,
  paperNamed,
  SHEET_READER_NEEDS,
  spansPage,
  patchRectangle,
  STRIP_READER_NEEDS,
} from './pageGeometry.ts';
import type { PaperName } from './pageGeometry.ts';
import { makeRgbChart } from './rgbChart.ts';
import { shortCheckColours } from './shortCheckChart.ts';

describe('RGB chart', () => {
  it.each([100, 240, 900, 3000])('of %i patches has exactly that many, as whole levels', (patches) => {
    const { device, roles } = makeRgbChart(patches, 5);
    expect(roles).toHaveLength(patches);
    expect(device).toHaveLength(patches * 3);
    for (const value of device) expect(Math.abs(value * 255 - Math.round(value * 255))).toBeLessThan(1e-9);
    expect(roles.filter((role) => role === 'paper').length).toBeGreaterThanOrEqual(patches >= 900 ? 12 : 6);
    const distinct = new Set(
      Array.from({ length: patches }, (_, i) => device.subarray(3 * i, 3 * i + 3).join()),
    );
    const repeated =
      roles.filter((role) => role === 'repeat').length + roles.filter((role) => role === 'paper').length - 1;
    expect(distinct.size).toBe(patches - repeated);
  });

  it.each([
    [100, { dark: 7, light: 6, repeat: 4, primary: 7 }],
    [900, { dark: 63, light: 54, repeat: 27, primary: 7 }],
  ])('of %i patches has its share of darks, lights and repeats, where they belong', (patches, shares) => {
    const { device, roles } = makeRgbChart(patches, 5);
    for (const [role, count] of Object.entries(shares))
      expect(roles.filter((own) => own === role)).toHaveLength(count);
    roles.forEach((role, i) => {
      const own = device.subarray(3 * i, 3 * i + 3);
      if (role === 'dark') {
        expect(Math.max(...own)).toBeLessThanOrEqual(0.36);
        expect(Math.max(...own) - Math.min(...own)).toBeLessThanOrEqual(0.11);
      }
      if (role === 'light') expect(Math.min(...own)).toBeGreaterThanOrEqual(0.74);
    });
  });

  it('is the same for the same seed, another for another, and covers the cube', () => {
    expect(makeRgbChart(300, 1).device).toEqual(makeRgbChart(300, 1).device);
    expect(makeRgbChart(300, 1).device).not.toEqual(makeRgbChart(300, 2).device);
    const { device } = makeRgbChart(900, 1);
    let widest = 0;
    for (let r = 0.1; r < 1; r += 0.2)
      for (let g = 0.1; g < 1; g += 0.2)
        for (let b = 0.1; b < 1; b += 0.2) {
          let nearest = Infinity;
          for (let i = 0; i < device.length; i += 3)
            nearest = Math.min(nearest, Math.hypot(device[i] - r, device[i + 1] - g, device[i + 2] - b));
          widest = Math.max(widest, nearest);
        }
    expect(widest).toBeLessThan(0.14);
    expect(() => makeRgbChart(99, 1)).toThrow(RangeError);
  });
});

describe('layout', () => {
  const { device } = makeRgbChart(900, 3);

  it.each(['a4', 'letter', 'a3'] as const satisfies readonly PaperName[])(
    'on %s keeps every patch once, within the page, in balanced strips',
    (paper) => {
      const layout = layoutChart(RGB, device, paper, 3);
      expect(layout.pages.flat(2).sort((a, b) => a - b)).toEqual(Array.from({ length: 900 }, (_, i) => i));
      const lengths = layout.pages.flat().map((strip) => strip.length);
      expect(Math.max(...lengths) - Math.min(...lengths)).toBeLessThanOrEqual(1);
      const { patchesPerStrip, stripsPerPage } = pageCapacity(paper);
      for (const page of layout.pages) expect(page.length).toBeLessThanOrEqual(stripsPerPage);
      const last = patchRectangle(stripsPerPage - 1, patchesPerStrip - 1);
      expect(last.x + last.width + STRIP_READER_NEEDS.leadIn).toBeLessThanOrEqual(
        paperMm(paper).width - STRIP_READER_NEEDS.margin + 1e-9,
      );
      expect(last.y + last.height).toBeLessThanOrEqual(
        paperMm(paper).height - STRIP_READER_NEEDS.margin - STRIP_READER_NEEDS.foot,
      );
    },
  );

  it('puts different colours side by side', () => {
    const layout = layoutChart(RGB, device, 'a4', 3);
    let alike = 0;
    let pairs = 0;
    for (const strip of layout.pages.flat())
      for (let i = 1; i < strip.length; i++) {
        pairs++;
        if (
          deltaE2000(genericLab(RGB, device, strip[i - 1] * 3), genericLab(RGB, device, strip[i] * 3)) <
          NEIGHBOUR_DELTA_E
        )
          alike++;
      }
    expect(alike / pairs).toBeLessThan(0.01);
  });

  it('goes to columns and back', () => {
    const layout = layoutChart(RGB, device, 'a4', 3);
    expect(layoutFromColumns(layoutColumns(layout), 'a4')).toEqual(layout);
    const columns = layoutColumns(layout);
    columns.place[4] = columns.place[5];
    columns.strip[4] = columns.strip[5];
    columns.page[4] = columns.page[5];
    expect(layoutFromColumns(columns, 'a4')).toBeUndefined();
  });
});

describe('short check', () => {
  it('asks for about thirty distinct colours with paper, greys and skin', () => {
    const colours = shortCheckColours();
    expect(colours.length).toBeGreaterThanOrEqual(28);
    expect(colours.length).toBeLessThanOrEqual(34);
    expect(new Set(colours.map(({ name }) => name)).size).toBe(colours.length);
    expect(
      colours.filter(({ group }) => group === 'grey').every(({ lab }) => lab[1] === 0 && lab[2] === 0),
    ).toBe(true);
    expect(colours.filter(({ group }) => group === 'skin')).toHaveLength(4);
  });
});

describe('the near-neutral chart', () => {
  const { device, names } = makeNearNeutralChart();
  const valuesOf = (name: string): number[][] =>
    names.flatMap((own, i) => (own === name ? [[...device.subarray(4 * i, 4 * i + 4)]] : []));
  const eight = (share: number): number => Math.round(share * 255) / 255;

  it('has papers, both scales to the solid, and each solid and overprint', () => {
    expect(valuesOf('paper')).toEqual(Array.from({ length: 6 }, () => [0, 0, 0, 0]));
    for (const percent of NEUTRAL_STEPS) {
      const tone = eight(percent / 100);
      const grey = eight(greyMagentaYellow(tone));
      expect(valuesOf(`K ${percent}`)).toEqual([[0, 0, 0, tone]]);
      expect(valuesOf(`grey ${percent}`)).toEqual([[tone, grey, grey, 0]]);
    }
    expect(['C', 'M', 'Y', 'C+M', 'M+Y', 'C+Y'].flatMap(valuesOf)).toEqual([
      [1, 0, 0, 0],
      [0, 1, 0, 0],
      [0, 0, 1, 0],
      [1, 1, 0, 0],
      [0, 1, 1, 0],
      [1, 0, 1, 0],
    ]);
  });

  it('varies its greys in magenta and yellow, alone and together, to both sides', () => {
    const grey = greyMagentaYellow(eight(0.5));
    const sides = valuesOf('grey 50 varied').map(([, m, y]) => [
      Math.sign(m - eight(grey)),
      Math.sign(y - eight(grey)),
    ]);
    expect(new Set(sides.map((side) => side.join()))).toEqual(
      new Set(['1,0', '-1,0', '0,1', '0,-1', '1,1', '-1,-1', '1,-1', '-1,1']),
    );
  });
});

describe('the generic press', () => {
  it('prints its solids and overprints as they were set, and darker with more ink', () => {
    const printed = (...inks: number[]): readonly number[] => genericPressLab(Float64Array.from(inks), 0);
    for (const [inks, lab] of [
      [
        [0, 0, 0, 0],
        [95, 0, -2],
      ],
      [
        [1, 0, 0, 0],
        [55, -37, -50],
      ],
      [
        [0, 1, 0, 0],
        [48, 74, -3],
      ],
      [
        [0, 0, 1, 0],
        [89, -5, 93],
      ],
      [
        [1, 1, 0, 0],
        [24, 22, -46],
      ],
      [
        [0, 1, 1, 0],
        [47, 68, 48],
      ],
      [
        [1, 0, 1, 0],
        [50, -65, 27],
      ],
      [
        [1, 1, 1, 0],
        [23, 0, 0],
      ],
      [
        [0, 0, 0, 1],
        [16, 0, 0],
      ],
    ] as const)
      printed(...inks).forEach((value, axis) => expect(value).toBeCloseTo(lab[axis], 6));
    const scale = [0, 0.25, 0.5, 0.75, 1].map((k) => printed(0, 0, 0, k)[0]);
    expect([...scale].sort((a, b) => b - a)).toEqual(scale);
  });
});

describe('pages of one’s own', () => {
  it.each([
    ['a4', true],
    ['610x914', true],
    ['90x90', true],
    ['89x90', false],
    ['1620x1620', true],
    ['1621x400', false],
    ['610x', false],
    ['61.5x914', false],
    ['constructor', false],
    ['', false],
  ])('%s: %s', (name, there) => expect(paperNamed(name) !== undefined).toBe(there));

  it('hold strips as long as a hand draws, and as wide as the page for other readers', () => {
    const { width, height } = paperMm('610x914');
    expect([width, height]).toEqual([610, 914]);
    expect(pageCapacity('610x914').patchesPerStrip).toBe(Math.floor(320 / 7.5));
    expect(pageCapacity('610x914', SHEET_READER_NEEDS).patchesPerStrip).toBe(Math.floor((610 - 38) / 6.5));
    expect(pageCapacity('90x90')).toEqual({ patchesPerStrip: 5, stripsPerPage: 3 });
    // 320 mm of strip and 48 mm beside it.
    expect([spansPage('368x400', STRIP_READER_NEEDS), spansPage('369x400', STRIP_READER_NEEDS)]).toEqual([
      true,
      false,
    ]);
    expect(spansPage('1000x400', SHEET_READER_NEEDS)).toBe(true);
    expect(() => paperMm('9x9')).toThrow('no page');
  });
});
