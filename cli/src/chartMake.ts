import { layoutChart } from '@melto/core/charts/layoutChart';
import { layoutColumns } from '@melto/core/charts/layoutColumns';
import { makeRgbChart, RGB_CHART_PATCHES } from '@melto/core/charts/rgbChart';
import { oneOf, report, wholeNumber, writePatchFile } from './files.ts';

export interface ChartMakeOptions {
  readonly process: string;
  readonly patches: string;
  readonly seed: string;
  readonly paper: string;
  readonly out: string;
  readonly json?: boolean;
}

export function chartMake(options: ChartMakeOptions): void {
  oneOf(options.process, '--process', ['rgb']);
  const patches = wholeNumber(options.patches, '--patches', RGB_CHART_PATCHES.least, RGB_CHART_PATCHES.most);
  const seed = wholeNumber(options.seed, '--seed', 0, 0xffffffff);
  const paper = oneOf(options.paper, '--paper', ['a4', 'letter', 'a3']);
  const { device, roles } = makeRgbChart(patches, seed);
  const layout = layoutChart('rgb', device, paper, seed);
  writePatchFile(options.out, {
    ids: roles.map((_, i) => String(i + 1)),
    names: [...roles],
    space: 'rgb',
    device,
    layout: layoutColumns(layout),
    conditions: {},
    title: `RGB chart, ${patches} patches`,
    originator: 'Melto',
    notes: [],
  });
  const strips = layout.pages.reduce((sum, page) => sum + page.length, 0);
  report(options.json, { patches, pages: layout.pages.length, strips, out: options.out }, [
    `${patches} patches in ${strips} strips on ${layout.pages.length} pages: ${options.out}`,
  ]);
}
