import type { NamedColour } from '../refine/namedColour.ts';

/**
 * Colours that eyes know: skin, sky, leaves, wood, greys, and solids at the edge of what prints. Chosen for Melto, in Lab
 * for D50 and 2°, as prints of such things are usually wanted; they are no measurement of any object.
 */
export const REFERENCE_COLOURS: readonly NamedColour[] = [
  { name: 'Skin, pale', lab: [78, 11, 15] },
  { name: 'Skin, tanned', lab: [63, 16, 22] },
  { name: 'Skin, dark', lab: [38, 12, 16] },
  { name: 'Sky, clear', lab: [62, -6, -28] },
  { name: 'Sky, hazy', lab: [80, -4, -12] },
  { name: 'Leaf', lab: [45, -24, 28] },
  { name: 'Meadow', lab: [60, -27, 38] },
  { name: 'Wood', lab: [46, 12, 24] },
  { name: 'Sand', lab: [79, 3, 18] },
  { name: 'Grey, light', lab: [82, 0, 0] },
  { name: 'Grey, middle', lab: [58, 0, 0] },
  { name: 'Grey, dark', lab: [34, 0, 0] },
  { name: 'Black', lab: [16, 0, 0] },
  { name: 'Red', lab: [48, 66, 46] },
  { name: 'Orange', lab: [66, 42, 68] },
  { name: 'Yellow', lab: [88, -5, 88] },
  { name: 'Green', lab: [50, -58, 28] },
  { name: 'Cyan', lab: [56, -36, -44] },
  { name: 'Blue', lab: [28, 18, -50] },
  { name: 'Magenta', lab: [48, 70, -4] },
];

/** Colours that one page holds, along its two long edges, and that one check may have. */
export const EYE_PAGE_COLOURS = 20;
export const EYE_MOST_COLOURS = 60;
