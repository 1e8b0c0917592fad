import type { Context } from '@melto/services/kernel/context';
import { changeLight, takeLights, viewingLights } from '@melto/services/light/viewingLights';
import { ROOM_LIGHTS } from '@melto/simulator/roomLights';
import type { RoomLight } from '@melto/simulator/roomLights';

/** Lights of the sample house, as somebody measured them; those that it has already are left. */
export async function measureLights(context: Context): Promise<void> {
  const known = new Set((await viewingLights(context)).map(({ name }) => name));
  for (const light of ROOM_LIGHTS.filter(({ name }) => !known.has(name))) {
    const { taken } = await takeLights(context, `${light.name}.csv`, Buffer.from(csvOf(light)));
    for (const { id, name } of taken) await changeLight(context, id, { name, note: light.note });
  }
}

/** As a spectroradiometer writes it. */
function csvOf({ name, startNm, stepNm, power }: RoomLight): string {
  const rows = power.map((value, i) => `${startNm + i * stepNm},${value}`);
  return [`nm,"${name}"`, ...rows].join('\n');
}
