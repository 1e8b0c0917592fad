import type { CurveFormat, DeviceFacts } from '@melto/core/device/deviceFacts';
import type { InkKind } from '@melto/core/stock/inkKinds';
import { formatLength, formatScreen, lengthUnit, screenUnit } from '@/ui/units';
import { paperWords } from '@/features/charts/paperWords';

export const CURVE_FORMAT_WORDS: Readonly<Record<CurveFormat, string>> = {
  link: 'ICC device link',
  csv: 'CSV',
  cgats: 'CGATS table',
  json: 'JSON',
};

export const INK_KIND_WORDS: Readonly<Record<InkKind, string>> = {
  pigment: 'pigment, in water',
  dye: 'dye, in water',
  toner: 'toner',
  offset: 'offset ink',
  solvent: 'solvent ink',
  latex: 'latex ink',
  uv: 'UV-cured ink',
  other: 'other',
};

/** What is known of a device, each in a few words. */
export function deviceFactWords({
  pages,
  printedWidthMm,
  zones,
  screenPerCm,
  curveFormats,
}: DeviceFacts): string[] {
  return [
    ...(printedWidthMm === undefined ? [] : [`${formatLength(printedWidthMm)} ${lengthUnit()} wide`]),
    ...(zones === undefined ? [] : [`${zones} ink zones`]),
    ...(screenPerCm === undefined ? [] : [`${formatScreen(screenPerCm)} ${screenUnit()}`]),
    ...(pages ?? []).map(paperWords),
    ...(curveFormats === undefined
      ? []
      : [`curves as ${curveFormats.map((format) => CURVE_FORMAT_WORDS[format]).join(' or ')}`]),
  ];
}
