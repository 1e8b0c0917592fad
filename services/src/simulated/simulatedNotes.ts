import type { Lab } from '@melto/core/colour/lab';
import { labAt } from '@melto/core/colour/labAt';
import { labToScreen } from '@melto/core/colour/srgb';
import { channelCount, drivenByLight } from '@melto/core/device/process';
import type { EyeNote } from '@melto/core/eye/eyeWords';
import { labsUnder } from '@melto/core/light/colourUnder';
import type { SeenIn } from '@melto/core/light/colourUnder';
import { createRandom } from '@melto/core/numerics/random';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { ROOM_LIGHTS } from '@melto/simulator/roomLights';
import { simulatedNote } from '@melto/simulator/simulatedEye';
import { eyePage } from '../eye/eyePage.ts';
import type { Context } from '../kernel/context.ts';
import { viewingLight } from '../light/viewingLights.ts';
import { printInRoom } from './roomPrint.ts';

/** Share of the ink that comes to the paper where too little does. */
const LITTLE_INK = 0.8;

/** What a simulated eye says of the page of a condition in a light: printed as it should be, past the profile, or with too little ink. */
export async function simulatedNotes(
  context: Context,
  conditionId: number,
  listId: number | undefined,
  key: string,
  wrong: 'nothing' | 'profile' | 'ink',
): Promise<readonly EyeNote[]> {
  const { condition, colours, device } = await eyePage(context, conditionId, listId);
  const light = await viewingLight(context, key);
  const share = ROOM_LIGHTS.find(({ name }) => name === light.name)?.ultraviolet ?? 1;
  const byLight = drivenByLight(condition.process);
  const channels = channelCount(condition.process);
  const values =
    wrong === 'nothing'
      ? device
      : wrong === 'ink'
        ? device.map((value) => (byLight ? 1 - LITTLE_INK * (1 - value) : LITTLE_INK * value))
        : Float64Array.from(colours.flatMap(({ lab }) => screenValues(lab, channels)));
  const seen: SeenIn = { light, observer: '2deg' };
  const spectra = await printInRoom(context, condition, values, share);
  const print = labsUnder({ grid: GRID_380_730_10, values: spectra }, seen);
  const random = createRandom(context.seed());
  return colours.map((colour, i) => simulatedNote(i, referenceUnder(colour, seen), labAt(print, i), random));
}

/** A colour as a screen's values reach the device: as light, or as the inks that complement it. */
function screenValues(lab: Lab, channels: number): number[] {
  const light = labToScreen(lab).rgb.map((level) => level / 255);
  if (channels === 3) return light;
  return [...light.map((value) => 1 - value), ...Array<number>(channels - 3).fill(0)];
}

/** The reference in the light: by its spectrum, or as it is where nobody knows one. */
const referenceUnder = ({ lab, spectrum }: ListedColour, seen: SeenIn): Lab =>
  spectrum === undefined ? lab : labAt(labsUnder(spectrum, seen), 0);
