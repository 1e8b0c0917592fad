import { chartModel } from '../characterise/chartModel.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import type { StudyPage } from './brightenerStudy.ts';

/** What a condition's chart tells of how a study's page looks in a light. */
export interface StudyData {
  /** Of the device: 3 for light, more for inks. */
  readonly channels: number;
  /** Patches of the chart: row-major × channel. */
  readonly device: ArrayLike<number>;
  /** Their colours in the light without ultraviolet and with that of M1, adapted to D50: row-major × 3. */
  readonly without: ArrayLike<number>;
  readonly lit: ArrayLike<number>;
  /** Device values of the page's fields: row-major × channel. */
  readonly fields: ArrayLike<number>;
}

/** How the fields of a study's page look in a light: by two models of the chart, without ultraviolet and with it. */
export function predictStudyPage({ channels, device, without, lit, fields }: StudyData): StudyPage {
  const values = Float64Array.from(device);
  const [dark, bright] = [without, lit].map((xyz) =>
    chartModel(channels, values, Float64Array.from(xyz))(fields),
  );
  return { without: dark, added: bright.map((value, i) => value - dark[i]), white: WHITE_D50_MEASURED };
}
