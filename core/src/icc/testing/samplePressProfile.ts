import { genericPressLab } from '../../charts/genericPress.ts';
import { WHITE_ICC } from '../../colour/whitePoints.ts';
import { labToXyz } from '../../colour/xyzToLab.ts';
import { MAPPED_AXES } from '../../profile/labAxis.ts';
import { forwardTag, inverseTag } from '../../profile/profileTables.ts';
import type { IccProfile, IccTag } from '../iccTypes.ts';
import { absoluteToRelativeLab } from '../profileTransform.ts';
import { sampleProfile } from './sampleProfile.ts';

const POINTS = 5;

/** A coarse profile of a generic press that is made at once, for tests of what jobs of inks carry; its way back is one tint. */
export function samplePressProfile(name: string): IccProfile {
  const paper = genericPressLab([0, 0, 0, 0]);
  const white = labToXyz(paper, WHITE_ICC);
  const lab = new Float64Array(POINTS ** 4 * 3);
  for (let i = 0; i < POINTS ** 4; i++) {
    const inks = [3, 2, 1, 0].map((power) => (Math.floor(i / POINTS ** power) % POINTS) / (POINTS - 1));
    lab.set(absoluteToRelativeLab(genericPressLab(inks), white), 3 * i);
  }
  const a2b = forwardTag({ channels: 4, points: POINTS, lab }, 2);
  const b2a = inverseTag(4, 3, new Float64Array(27 * 4).fill(0.5), 2, MAPPED_AXES);
  const { header } = sampleProfile(2);
  return {
    header: { ...header, colourSpace: 'CMYK' },
    tags: new Map<string, IccTag>([
      ['desc', { type: 'desc', text: name }],
      ['wtpt', { type: 'XYZ', values: [[white[0], white[1], white[2]]] }],
      ...(['A2B0', 'A2B1', 'A2B2'] as const).map((tag) => [tag, a2b] as const),
      ...(['B2A0', 'B2A1', 'B2A2'] as const).map((tag) => [tag, b2a] as const),
    ]),
  };
}
